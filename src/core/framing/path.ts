import type { Size } from '../delivery';
import { compare, type Fraction, fraction, minus, toNumber, ZERO } from '../time';
import { MIDDLE, type Placement, type Point } from './placement';

/** Where the frame's middle is from a moment on, in exact seconds of the cut. */
export interface PathPoint extends Point {
  at: Fraction;
  /** From here it moves to the next point; otherwise it stays until then. */
  moves?: true;
}

/** How long a frame that has stayed takes to move on. */
const MOVE_SECONDS: Fraction = fraction(1, 1);

/**
 * The way of a frame through a cut. The first placement in a shot holds from where that shot begins; a shot without one keeps
 * the last; before the first it is the middle. No frame moves across the border of two shots.
 * @param placements in order of time
 * @param starts where shots begin, in order of time; that of the first need not be among them
 */
export function pathOf(placements: readonly Placement[], starts: readonly Fraction[]): PathPoint[] {
  const path: PathPoint[] = [];
  const put = (at: Fraction, { x, y }: Point, moves = false) => {
    // What holds from the same moment on takes the place of what was there.
    if (path.length > 0 && compare((path.at(-1) as PathPoint).at, at) >= 0) path.pop();
    path.push(moves ? { at, x, y, moves } : { at, x, y });
  };
  put(ZERO, MIDDLE);
  for (const [index, placement] of placements.entries()) {
    const before = placements[index - 1];
    const start = shotStartAt(placement.at, starts);
    if (!before || compare(before.at, start) < 0) {
      put(start, placement);
      continue;
    }
    if (placement.comes !== 'cut') {
      const late = minus(placement.at, MOVE_SECONDS);
      const leaves = placement.comes === 'held' && compare(late, before.at) > 0 ? late : before.at;
      put(leaves, before, true);
    }
    path.push({ at: placement.at, x: placement.x, y: placement.y });
  }
  return path;
}

function shotStartAt(at: Fraction, starts: readonly Fraction[]): Fraction {
  return starts.findLast((start) => compare(start, at) <= 0) ?? ZERO;
}

/** How a frame moves: it sets off and comes to rest gently. @param part of the time that is over, from 0 to 1 */
const eased = (part: number): number => part * part * (3 - 2 * part);

/** A frame within a picture that it is cut out of, both in the same pixels. */
export interface Framed {
  full: Size;
  frame: Size;
}

/** The upper left corner of a frame whose middle is at a point, kept within the picture; in pixels, not rounded. */
export function cornerAt({ x, y }: Point, { full, frame }: Framed): Point {
  const kept = (middle: number, whole: number, part: number) =>
    Math.max(0, Math.min(whole - part, (middle / 10_000) * whole - part / 2));
  return { x: kept(x, full.width, frame.width), y: kept(y, full.height, frame.height) };
}

/** The upper left corner of the frame at a moment, in pixels, not rounded. @param at exact seconds of the cut */
export function cornerOnPath(path: readonly PathPoint[], at: Fraction, framed: Framed): Point {
  const index = path.findLastIndex((point) => compare(point.at, at) <= 0);
  const here = path[Math.max(0, index)] ?? { ...MIDDLE, at: ZERO };
  const next = path[index + 1];
  const from = cornerAt(here, framed);
  if (!here.moves || !next) return from;
  const to = cornerAt(next, framed);
  const part = eased(toNumber(minus(at, here.at)) / toNumber(minus(next.at, here.at)));
  return { x: from.x + (to.x - from.x) * part, y: from.y + (to.y - from.y) * part };
}

/** The middle of a frame whose corner is at a point: the reverse of `cornerAt`, in whole ten-thousandths. */
export function middleOf({ x, y }: Point, { full, frame }: Framed): Point {
  const part = (corner: number, whole: number, length: number) =>
    Math.max(0, Math.min(10_000, Math.round(((corner + length / 2) / whole) * 10_000)));
  return { x: part(x, full.width, frame.width), y: part(y, full.height, frame.height) };
}
