import { type Fraction, floor, toNumber, viewerTime } from '../time';

/** A length as people say it: 3.2 s, 75 s, 4 min 5 s. */
export function lengthWords(seconds: Fraction): string {
  const value = toNumber(seconds);
  if (value < 10) return `${value.toFixed(1)} s`;
  const whole = Math.round(value);
  return whole < 120 ? `${whole} s` : `${Math.floor(whole / 60)} min ${whole % 60} s`;
}

/** A moment as viewers read it. */
export const momentWords = (at: Fraction): string => viewerTime(at, floor(at));
