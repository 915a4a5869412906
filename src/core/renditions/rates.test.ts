import { describe, expect, it } from 'vitest';
import { fraction } from '../time';
import { shownSize, sizeFor, withLines } from './frame-size';
import { goodKilobits, kilobitsBelow, leastKilobits } from './rates';

describe('rates that look good (common practice, no source)', () => {
  it.each([
    ['1080p', 1920, 1080, 30, 16_000, 20_000],
    ['1080p at 60', 1920, 1080, 60, 22_000, 30_000],
    ['1440p at 60', 2560, 1440, 60, 60_000, 60_000],
    ['2160p at 60', 3840, 2160, 60, 100_000, 100_000],
  ])('%s', (_, width, height, rate, least, most) => {
    const kilobits = goodKilobits(width, height, rate, 'h264');
    expect(kilobits).toBeGreaterThanOrEqual(least);
    expect(kilobits).toBeLessThanOrEqual(most);
  });

  it('grow with the picture and its rate, and are never bad', () => {
    const sizes = [240, 360, 480, 720, 1080, 1440, 2160, 4320].map((lines) =>
      withLines({ width: 1920, height: 1080 }, lines),
    );
    const rates = sizes.map(({ width, height }) => goodKilobits(width, height, 25, 'h264'));
    expect(rates).toEqual([...rates].sort((a, b) => a - b));
    sizes.forEach(({ width, height }, index) => {
      expect(rates[index]).toBeGreaterThan(leastKilobits(width, height, 25, 'h264'));
    });
  });

  it('leave a file below a size: 256 MiB for 120 s is some 17 Mbit/s (by hand)', () => {
    // 268,435,456 bytes × 8 / 120 s = 17,895,697 bits a second; 4 % are kept free.
    expect(kilobitsBelow(256 * 1024 ** 2, 120, 0)).toBe(17_179);
  });
});

describe('sizes of the picture', () => {
  const upright = { width: 1080, height: 1920 };
  it('count lines by the shorter side and come in pairs of pixels', () => {
    expect(sizeFor(upright, { way: 'at most', lines: 720 }, undefined)).toEqual({ width: 720, height: 1280 });
    expect(sizeFor({ width: 1001, height: 563 }, { way: 'keep' }, undefined)).toEqual({ width: 1002, height: 564 });
  });
  it('never grow, and stay within the bound of a site', () => {
    expect(sizeFor({ width: 640, height: 360 }, { way: 'at most', lines: 1080 }, undefined)).toEqual({
      width: 640,
      height: 360,
    });
    expect(sizeFor(upright, { way: 'keep' }, { width: 1920, height: 1080 })).toEqual({ width: 608, height: 1080 });
  });
  it('are those that are shown: turned, with square pixels', () => {
    const more = { turned: 90, pixelShape: fraction(4, 3) } as never;
    expect(shownSize({ width: 1440, height: 1080, more } as never)).toEqual({ width: 1080, height: 1920 });
  });
});
