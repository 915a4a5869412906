import { type Fraction, fraction } from './fraction';

/** A time line's frame rate: frames a second as an exact fraction, and whether its timecode drops frame numbers. */
export interface Rate {
  readonly num: number;
  readonly den: number;
  readonly dropFrame: boolean;
}

/** The rate `num / den`. @throws RangeError where it is not above zero. */
export function rate(num: number, den = 1, dropFrame = false): Rate {
  const lowest = fraction(num, den);
  if (lowest.num <= 0) throw new RangeError('A frame rate is above zero');
  return { ...lowest, dropFrame };
}

/** The whole number of frames that timecode counts in a second: 30 for 30000/1001. */
export function nominal(of: Rate): number {
  return Math.ceil(of.num / of.den);
}

/** Whether drop-frame counting is defined for this rate: multiples of 30000/1001 (SMPTE ST 12-1). */
export function canDropFrames(of: Fraction): boolean {
  return of.den === 1001 && of.num % 30000 === 0;
}

/** The rate as people say it: "25", "23.976", "29.97 drop". */
export function rateName(of: Rate): string {
  const value = of.num / of.den;
  const text = Number.isInteger(value) ? String(value) : value.toFixed(3).replace(/0+$/, '');
  return of.dropFrame ? `${text} drop` : text;
}
