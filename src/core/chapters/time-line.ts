import { canDropFrames, compare, type Fraction, plus, type Rate, rate, ZERO } from '../time';
import type { ExportedRange } from './chapters';

/** The edit's time line, and the part of it that the cut was exported from. */
export interface TimeLine {
  /** Frame count of its first frame: 90000 where it starts at 01:00:00:00 and has 25 frames a second. */
  startFrame: number;
  dropFrame: boolean;
  /** In point: where the cut begins, in exact seconds from the time line's first frame; below zero where it ran before. */
  from: Fraction;
  /** Out point: the first moment after what was exported, where one was set. */
  to: Fraction | undefined;
  /** The cut that this was said of, where there is more than one; a newer one of another length asks anew. */
  cutId: string | undefined;
}

/** The time line of a video that nothing is known of: it starts with the cut. */
export const PLAIN_TIME_LINE: TimeLine = {
  startFrame: 0,
  dropFrame: false,
  from: ZERO,
  to: undefined,
  cutId: undefined,
};

/** The rate of a cut as its time line counts it. */
export function timeLineRate(exact: Fraction, { dropFrame }: Pick<TimeLine, 'dropFrame'>): Rate {
  return rate(exact.num, exact.den, dropFrame && canDropFrames(exact));
}

/** The part of the time line that can hold chapters: from the in point to the out point, or to the end of the cut. */
export function exportedRange({ from, to }: TimeLine, duration: Fraction | undefined): ExportedRange {
  const end = duration && plus(from, duration);
  if (!end || !to) return { from, to: to ?? end };
  return { from, to: compare(to, end) < 0 ? to : end };
}
