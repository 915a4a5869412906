import { describe, expect, it } from 'vitest';
import { chaptersIn, checkThumbnail, newVideoShape, wordsShape } from './rules';

describe('chapters that Lanternfold shows', () => {
  const video = (description: string) => ({ description, seconds: 120 });
  const list = '0:00 One\n0:15 Two\n1:00 - Three';

  it('are lines with times, the first at 0:00, three or more, ten seconds or longer', () => {
    expect(chaptersIn(video(`Words\n\n${list}\nMore words`))).toEqual([
      { seconds: 0, title: 'One' },
      { seconds: 15, title: 'Two' },
      { seconds: 60, title: 'Three' },
    ]);
    expect(chaptersIn(video('1:00:00 late only'))).toEqual([]);
  });

  it.each([
    ['a first one later', '0:01 One\n0:15 Two\n1:00 Three'],
    ['only two', '0:00 One\n0:15 Two'],
    ['a short one', '0:00 One\n0:09 Two\n1:00 Three'],
    ['one that goes back', '0:00 One\n1:00 Two\n0:30 Three'],
    ['a short last one', '0:00 One\n0:30 Two\n1:55 Three'],
  ])('are none with %s', (_, description) => {
    expect(chaptersIn(video(description))).toEqual([]);
  });
});

describe('what Lanternfold takes', () => {
  const taken = (shape: { isValid(value: unknown): Promise<boolean> }, value: unknown) => shape.isValid(value);

  it('titles of 90, texts of 4,000 without < and >, 30 tags in 400', async () => {
    expect(await taken(wordsShape, { title: 'x'.repeat(90) })).toBe(true);
    expect(await taken(wordsShape, { title: 'x'.repeat(91) })).toBe(false);
    expect(await taken(wordsShape, { title: '🛶'.repeat(46) })).toBe(false);
    expect(await taken(wordsShape, { description: 'x'.repeat(4000) })).toBe(true);
    expect(await taken(wordsShape, { description: 'a < b' })).toBe(false);
    expect(await taken(wordsShape, { tags: Array.from({ length: 31 }, (_, n) => `t${n}`) })).toBe(false);
    expect(await taken(wordsShape, { tags: ['x'.repeat(200), 'y'.repeat(200)] })).toBe(false);
    expect(await taken(wordsShape, { visibility: 'nobody' })).toBe(false);
  });

  it('files up to 64 GiB', async () => {
    expect(await taken(newVideoShape, { fileName: 'a.mp4', size: 64 * 1024 ** 3 })).toBe(true);
    expect(await taken(newVideoShape, { fileName: 'a.mp4', size: 64 * 1024 ** 3 + 1 })).toBe(false);
    expect(await taken(newVideoShape, { fileName: 'a.mp4', size: 0 })).toBe(false);
  });

  it('thumbnails of 16:9 from 1280 wide, in 3 MB', () => {
    expect(() => checkThumbnail({ format: 'jpeg', width: 1280, height: 720 }, 1000)).not.toThrow();
    for (const [found, bytes] of [
      [{ format: 'gif', width: 1280, height: 720 }, 1000],
      [{ format: 'jpeg', width: 640, height: 360 }, 1000],
      [{ format: 'jpeg', width: 1280, height: 960 }, 1000],
      [{ format: 'jpeg', width: 1280, height: 720 }, 3_000_001],
      [{}, 10],
    ] as const) {
      expect(() => checkThumbnail(found, bytes)).toThrow();
    }
  });
});
