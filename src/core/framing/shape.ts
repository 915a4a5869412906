import type { Size } from '../delivery';
import type { Fraction } from '../time';

/** Shapes that a wide picture can be framed to. */
export const SHAPES = ['upright', 'square'] as const;
export type Shape = (typeof SHAPES)[number];

/** Width over height. */
export const SHAPE_RATIOS: Record<Shape, Fraction> = { upright: { num: 9, den: 16 }, square: { num: 1, den: 1 } };

export const SHAPE_NAMES: Record<Shape, string> = { upright: 'upright (9:16)', square: 'square' };

/** How close a frame can go, in percent of the largest one: closer than this, few pixels are left. */
export const CLOSEST_PERCENT = 40;
/** A picture whose shape is this near is left as it is. */
const NEAR_SHAPE = 0.01;

/** Whether a picture has a shape already. */
export function hasShape({ width, height }: Size, shape: Shape): boolean {
  const { num, den } = SHAPE_RATIOS[shape];
  return Math.abs((width * den) / (height * num) - 1) <= NEAR_SHAPE;
}

/** The frame of a shape in a picture, in its pixels. @param percent of the largest that there is room for */
export function frameIn({ width, height }: Size, shape: Shape, percent: number): Size {
  const { num, den } = SHAPE_RATIOS[shape];
  const part = percent / 100;
  return width * den > height * num
    ? { width: (height * part * num) / den, height: height * part }
    : { width: width * part, height: (width * part * den) / num };
}
