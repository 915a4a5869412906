import { describe, expect, it } from 'vitest';
import { chaptersIn, checkThumbnail, newVideoShape, wordsShape } from './rules';

describe('chapters that Lanternfold shows', () => {
  const video = (description: string) => ({ description, seconds: 120 });
  const list = '0:00 One\n0:15 Two\n1:00 - Three';

  it('are lines with times, the first at 0:00, two to sixty, ten seconds or longer', () => {
    expect(chaptersIn(video(`Words\n\n${list}\nMore words`))).toEqual([
      { seconds: 0, title: 'One' },
      { seconds: 15, title: 'Two' },
      { seconds: 60, title: 'Three' },
    ]);
    expect(chaptersIn(video('1:00:00 late only'))).toEqual([]);
  });

  it.each([
    ['a first one later', '0:01 One\n0:15 Two\n1:00 Three'],
    ['only one', '0:00 One'],
    ['more than sixty', Array.from({ length: 61 }, (_, n) => `${n}:00 Part`).join('\n')],
    ['a short one', '0:00 One\n0:09 Two\n1:00 Three'],
    ['one that goes back', '0:00 One\n1:00 Two\n0:30 Three'],
    ['a short last one', '0:00 One\n0:30 Two\n1:55 Three'],
  ])('are none with %s', (_, description) => {
    expect(chaptersIn({ ...video(description), seconds: description.length > 300 ? 7200 : 120 })).toEqual([]);
  });
});

describe('what Lanternfold takes', () => {
  const taken = (shape: { isValid(value: unknown): Promise<boolean> }, value: unknown) => shape.isValid(value);

  it('titles of 96, texts of 4,200 with 25 links, 24 tags of 32', async () => {
    expect(await taken(wordsShape, { title: 'x'.repeat(96) })).toBe(true);
    expect(await taken(wordsShape, { title: 'x'.repeat(97) })).toBe(false);
    expect(await taken(wordsShape, { title: '🛶'.repeat(49) })).toBe(false);
    expect(await taken(wordsShape, { description: 'x'.repeat(4200) })).toBe(true);
    expect(await taken(wordsShape, { description: 'a < b' })).toBe(true);
    expect(await taken(wordsShape, { description: 'https://a.example '.repeat(25) })).toBe(true);
    expect(await taken(wordsShape, { description: 'https://a.example '.repeat(26) })).toBe(false);
    expect(await taken(wordsShape, { tags: Array.from({ length: 25 }, (_, n) => `t${n}`) })).toBe(false);
    expect(await taken(wordsShape, { tags: ['x'.repeat(33)] })).toBe(false);
    expect(await taken(wordsShape, { visibility: 'nobody' })).toBe(false);
  });

  it('files up to 64 GiB', async () => {
    expect(await taken(newVideoShape, { fileName: 'a.mp4', size: 64 * 1024 ** 3 })).toBe(true);
    expect(await taken(newVideoShape, { fileName: 'a.mp4', size: 64 * 1024 ** 3 + 1 })).toBe(false);
    expect(await taken(newVideoShape, { fileName: 'a.mp4', size: 0 })).toBe(false);
  });

  it('thumbnails of 16:9 from 1000 wide, in 4 MB', () => {
    expect(() => checkThumbnail({ format: 'jpeg', width: 1000, height: 563 }, 1000)).not.toThrow();
    for (const [found, bytes] of [
      [{ format: 'gif', width: 1280, height: 720 }, 1000],
      [{ format: 'jpeg', width: 640, height: 360 }, 1000],
      [{ format: 'jpeg', width: 1280, height: 960 }, 1000],
      [{ format: 'jpeg', width: 1280, height: 720 }, 4_000_001],
      [{}, 10],
    ] as const) {
      expect(() => checkThumbnail(found, bytes)).toThrow();
    }
  });
});
