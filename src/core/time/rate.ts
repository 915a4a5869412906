import { type Fraction, fraction, fromDecimal } from './fraction';

/** A time line's frame rate: frames a second as an exact fraction, and whether its timecode drops frame numbers. */
export interface Rate {
  readonly num: number;
  readonly den: number;
  readonly dropFrame: boolean;
}

/**
 * The rate `num / den`.
 * @param num frames in `den` seconds
 * @param dropFrame whether its timecode leaves numbers out (SMPTE ST 12-1)
 * @throws RangeError where it is not above zero.
 */
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

/** The exact rate behind a number such as 29.97 or 23.976023976: whole, or a multiple of 1000/1001. */
export function exactRate(value: number): Rate | undefined {
  if (!Number.isFinite(value) || value <= 0 || value > 100_000) return undefined;
  if (Math.abs(value - Math.round(value)) < 1e-6) return rate(Math.round(value));
  const nominal = Math.ceil(value);
  if (Math.abs(value - (nominal * 1000) / 1001) < 0.005) return rate(nominal * 1000, 1001);
  const decimal = fromDecimal(value.toFixed(6));
  return decimal && rate(decimal.num, decimal.den);
}
