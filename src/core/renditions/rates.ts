import type { PictureCodec } from './settings';

/** Common practice, no source: [pixels of a frame, kilobits a second at 30 frames a second, and at 60]. */
const GOOD_RATES: readonly [pixels: number, at30: number, at60: number][] = [
  [1920 * 1080, 18_000, 26_000],
  [2560 * 1440, 41_000, 60_000],
  [3840 * 2160, 69_000, 100_000],
];

/** What H.265 and VP9 need of what H.264 needs for much the same look: common practice, no source. */
const LESS: Record<PictureCodec, number> = { h264: 1, hevc: 0.65, vp9: 0.7 };

/**
 * A rate at which a picture of this size looks good, in kilobits a second. Between the sizes that people go by it grows with
 * the pixels, below and above them in proportion.
 * @param rate frames a second
 */
export function goodKilobits(width: number, height: number, rate: number, codec: PictureCodec): number {
  const pixels = width * height;
  const at = (column: 1 | 2): number => {
    const above = GOOD_RATES.findIndex(([size]) => pixels <= size);
    const [high, low] = [GOOD_RATES[above], GOOD_RATES[above - 1]];
    if (!high || !low) {
      const edge = high ?? (GOOD_RATES.at(-1) as (typeof GOOD_RATES)[number]);
      return (edge[column] * pixels) / edge[0];
    }
    return low[column] + ((high[column] - low[column]) * (pixels - low[0])) / (high[0] - low[0]);
  };
  const share = Math.min(1, Math.max(0, (rate - 30) / 30));
  return Math.max(300, Math.round((at(1) + (at(2) - at(1)) * share) * LESS[codec]));
}

/** Fewer bits than this for one pixel of one frame look bad, for H.264: ours, no source. */
const LEAST_BITS = 0.025;

/** The lowest rate at which a picture does not look bad, in kilobits a second. @param rate frames a second */
export function leastKilobits(width: number, height: number, rate: number, codec: PictureCodec): number {
  return Math.ceil((width * height * rate * LEAST_BITS * LESS[codec]) / 1000);
}

/** The rate that remains for the picture so that a file stays below a size, in kilobits a second. */
export function kilobitsBelow(bytes: number, seconds: number, soundKilobits: number): number {
  // What a container adds, and by how much an encoder misses its target, are kept free.
  return Math.floor((bytes * 8 * 0.96) / seconds / 1000 - soundKilobits);
}
