import type { CutSpan } from '../delivery';
import { compare, type Fraction, fraction, minus } from '../time';

/** So near to an end a span reaches it: a few frames of fade are neither black nor still. */
export const NEAR: Fraction = fraction(1, 5);

export const lengthOf = ({ from, to }: CutSpan): Fraction => minus(to, from);

/** Whether a span starts where the cut does. */
export const startsAt0 = ({ from }: CutSpan): boolean => compare(from, NEAR) <= 0;

/** Whether a span goes to an end. @param end in exact seconds of the cut */
export const reaches = ({ to }: CutSpan, end: Fraction): boolean => compare(minus(end, to), NEAR) <= 0;

/** Whether two spans have a moment in common. */
export const overlaps = (a: CutSpan, b: CutSpan): boolean => compare(a.from, b.to) < 0 && compare(b.from, a.to) < 0;
