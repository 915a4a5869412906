import { describe, expect, it } from 'vitest';
import { Problem } from '../shared/problem';
import { contentRange, newPostShape, pipErrors, wordsShape } from './rules';

describe('what Pipwire takes', () => {
  it('counts words in graphemes', async () => {
    const family = '👩‍👩‍👧';
    expect(await wordsShape.isValid({ words: family.repeat(240) })).toBe(true);
    expect(await wordsShape.isValid({ words: `${family.repeat(240)}.` })).toBe(false);
    expect(await wordsShape.isValid({ words: '' })).toBe(true);
    expect(await wordsShape.isValid({})).toBe(false);
  });

  it('has moments inside the longest clip', async () => {
    expect(await wordsShape.isValid({ words: 'a', moment: 120 })).toBe(true);
    expect(await wordsShape.isValid({ words: 'a', moment: 121 })).toBe(false);
    expect(await wordsShape.isValid({ words: 'a', moment: -1 })).toBe(false);
  });

  it('takes MP4 up to 256 MiB', async () => {
    const post = (name: string, bytes: number) => newPostShape.isValid({ ref: 'r', clip: { name, bytes } });
    expect(await post('a.MP4', 256 * 1024 ** 2)).toBe(true);
    expect(await post('a.mp4', 256 * 1024 ** 2 + 1)).toBe(false);
    expect(await post('a.mov', 10)).toBe(false);
    expect(await post('a.mp4', 0)).toBe(false);
  });

  it('words errors its own way', () => {
    const { type, body } = pipErrors(new Problem(409, 'Not yet', 'A post needs words', { have: 5 }));
    expect(type).toBe('application/json');
    expect(body).toEqual({ pip: 'no', code: 'not_yet', why: 'A post needs words', have: 5 });
  });
});

describe('a Content-Range field', () => {
  it('is read where it has first, last and size', () => {
    // RFC 9110, section 14.4: the field's own examples.
    expect(contentRange('bytes 42-1233/1234')).toEqual({ first: 42, last: 1233, size: 1234 });
    expect(contentRange('bytes 0-0/1')).toEqual({ first: 0, last: 0, size: 1 });
  });

  it('is none where the size is not known, or the range is none', () => {
    // RFC 9110, section 14.4: invalid where last lies before first, or the size at or before last.
    for (const field of [
      'bytes 42-1233/*',
      'bytes */1234',
      'bytes 5-4/10',
      'bytes 0-10/10',
      'lines 0-1/2',
      undefined,
    ]) {
      expect(contentRange(field)).toBeUndefined();
    }
  });
});
