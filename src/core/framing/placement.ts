import { compare, type Fraction, type Rate, timeOfFrame } from '../time';
import type { Shape } from './shape';

/** A point of a picture, in ten-thousandths of its width and height. */
export interface Point {
  x: number;
  y: number;
}

export const MIDDLE: Point = { x: 5000, y: 5000 };

/**
 * How the frame comes to a place from the one before it in the same shot: it jumps there; it moves there all the while; or it
 * stays and then moves there within a second.
 */
export const COMINGS = ['cut', 'smooth', 'held'] as const;
export type Coming = (typeof COMINGS)[number];

/** Where a person has put the frame's middle at a moment, in exact seconds of the cut. */
export interface Placement extends Point {
  at: Fraction;
  comes: Coming;
}

/** How a video is framed to a shape. */
export interface Framing {
  /** The frame's size in percent of the largest one. */
  percent: number;
  /** In order of time. */
  placements: Placement[];
}

export type Framings = Partial<Record<Shape, Framing>>;

export const UNPLACED: Framing = { percent: 100, placements: [] };

/** More than these are not placed by hand. */
export const MOST_PLACEMENTS = 300;

/** A framing with the frame put somewhere at a moment: a place that is there already is moved, and keeps how it comes. */
export function withPlacement(framing: Framing, at: Fraction, point: Point): Framing {
  const old = framing.placements.find((each) => compare(each.at, at) === 0);
  const others = framing.placements.filter((each) => each !== old);
  const placements = [...others, { comes: old?.comes ?? 'held', at, x: point.x, y: point.y }];
  return { ...framing, placements: placements.sort((a, b) => compare(a.at, b.at)) };
}

/** A framing without the place at a moment. */
export function withoutPlacement(framing: Framing, at: Fraction): Framing {
  return { ...framing, placements: framing.placements.filter((each) => compare(each.at, at) !== 0) };
}

/** Where shots begin, in exact seconds of the cut. @param shots frames of it, as the pass finds them */
export const shotStarts = (shots: readonly number[], rate: Rate): Fraction[] =>
  shots.map((frame) => timeOfFrame(frame, rate));
