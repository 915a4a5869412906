import type { CutFacts, Size } from '../delivery';
import { toNumber } from '../time';
import type { FrameSize } from './settings';

const even = (value: number) => Math.max(2, 2 * Math.round(value / 2));

/** The size at which a picture is shown: turned as it says, with square pixels. */
export function shownSize({ width, height, more }: CutFacts['video']): Size {
  const wide = more ? Math.round(width * toNumber(more.pixelShape)) : width;
  return more && more.turned % 180 !== 0 ? { width: height, height: wide } : { width: wide, height };
}

/** The lines of a size: its shorter side. */
export const linesOf = ({ width, height }: Size): number => Math.min(width, height);

/** The same shape with so many lines, in whole pairs of pixels as 4:2:0 asks for. */
export function withLines(size: Size, lines: number): Size {
  const scale = lines / linesOf(size);
  return { width: even(size.width * scale), height: even(size.height * scale) };
}

/**
 * The size that settings ask for, within the bound of a site.
 * @param bound pixels, width by height, that a site takes at most
 */
export function sizeFor(size: Size, asked: FrameSize, bound: Size | undefined): Size {
  const lines = asked.way === 'keep' ? linesOf(size) : Math.min(asked.lines, linesOf(size));
  const wanted = withLines(size, lines);
  if (!bound) return wanted;
  const scale = Math.min(1, bound.width / wanted.width, bound.height / wanted.height);
  if (scale === 1) return wanted;
  // Rounded down: a pair more would be too much.
  const down = (value: number, most: number) => Math.min(2 * Math.floor(most / 2), even(value * scale));
  return { width: down(wanted.width, bound.width), height: down(wanted.height, bound.height) };
}

/** Lines that a picture may be brought down to so that few bits suffice, from the most to the fewest. */
export const LINES_DOWN = [2160, 1440, 1080, 720, 540, 480];
