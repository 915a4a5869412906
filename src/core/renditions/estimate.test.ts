import { describe, expect, it } from 'vitest';
import { fraction } from '../time';
import { encoderOf, expectedOf, megapixelsOf } from './estimate';
import type { Recipe } from './recipe';

const facts = {
  container: 'mp4',
  duration: fraction(100),
  size: 200_000_000,
  bitRate: 16_000_000,
  video: {
    codec: 'h264',
    profile: '',
    width: 1920,
    height: 1080,
    rate: fraction(25),
    pixelFormat: '',
    bitRate: undefined,
  },
  audio: undefined,
};
const recipe: Recipe = {
  container: 'mp4',
  picture: {
    codec: 'h264',
    width: 1280,
    height: 720,
    control: { way: 'variable', kilobits: 2000, ceiling: 3000, passes: 1 },
  },
  sound: 'none',
};

describe('what is expected of a file', () => {
  it('is its own size where it goes as it is: a gigabyte takes 400 to 1000 s on lines of 20 to 8 Mbit/s (common practice)', () => {
    const whole = { ...facts, size: 1_000_000_000 };
    for (const [megabits, seconds] of [
      [20, 400],
      [8, 1000],
    ] as const) {
      const { size, making, sending } = expectedOf(undefined, whole, { bytesPerSecond: (megabits * 1e6) / 8 });
      expect([size.likely, making.likely, sending?.likely]).toEqual([1_000_000_000, 0, seconds]);
    }
  });

  it('counts pixels over all passes', () => {
    expect(megapixelsOf(recipe, facts)).toBeCloseTo((1280 * 720 * 2500) / 1e6);
  });

  it('is learned from files that were made before, of the same kind alone', () => {
    const encoder = encoderOf(recipe);
    const before = [
      { encoder, megapixels: 1000, seconds: 10, expected: 100, size: 50 },
      { encoder: 'hevc variable 1', megapixels: 1000, seconds: 1000, expected: 100, size: 100 },
    ];
    const blank = expectedOf(recipe, facts, {});
    const learned = expectedOf(recipe, facts, { before });
    // 1,000 megapixels in 10 s, of which 0.7 s are the start.
    expect(learned.making.likely).toBeCloseTo(0.7 + (megapixelsOf(recipe, facts) * 9.3) / 1000);
    expect(learned.size.likely).toBe(Math.round(blank.size.likely / 2));
    for (const range of [learned.size, learned.making, blank.size, blank.making]) {
      expect(range.least).toBeLessThanOrEqual(range.likely);
      expect(range.likely).toBeLessThanOrEqual(range.most);
    }
    expect(learned.sending).toBeUndefined();
  });
});
