/** An exact number of seconds (or of frames a second): `num / den`, in lowest terms, `den` above zero. */
export interface Fraction {
  readonly num: number;
  readonly den: number;
}

const MOST = BigInt(Number.MAX_SAFE_INTEGER);

function greatestCommonDivisor(a: bigint, b: bigint): bigint {
  let [x, y] = [a < 0n ? -a : a, b < 0n ? -b : b];
  while (y !== 0n) [x, y] = [y, x % y];
  return x;
}

function fromBig(num: bigint, den: bigint): Fraction {
  if (den === 0n) throw new RangeError('A fraction needs a denominator other than zero');
  const sign = den < 0n ? -1n : 1n;
  const divisor = greatestCommonDivisor(num, den) || 1n;
  const [n, d] = [(sign * num) / divisor, (sign * den) / divisor];
  if (n > MOST || n < -MOST || d > MOST) throw new RangeError(`${num}/${den} is out of range for exact arithmetic`);
  return { num: Number(n), den: Number(d) };
}

/** The fraction of two products that doubles hold exactly; undefined where only big integers do. */
function fromSafe(num: number, den: number): Fraction | undefined {
  if (!Number.isSafeInteger(num) || !Number.isSafeInteger(den) || den <= 0) return undefined;
  let [x, y] = [Math.abs(num), den];
  while (y !== 0) [x, y] = [y, x % y];
  // Zero is added so that no minus zero comes out.
  return { num: num / x + 0, den: den / x };
}

/**
 * The fraction `num / den` in lowest terms.
 * @throws RangeError if `den` is zero or either part is no safe integer.
 */
export function fraction(num: number, den = 1): Fraction {
  if (!Number.isSafeInteger(num) || !Number.isSafeInteger(den)) {
    throw new RangeError(`${num}/${den} is not made of whole numbers`);
  }
  return fromBig(BigInt(num), BigInt(den));
}

export const ZERO: Fraction = { num: 0, den: 1 };

/** `a + b`, exact. */
export function plus(a: Fraction, b: Fraction): Fraction {
  const [left, right] = [a.num * b.den, b.num * a.den];
  const safe = Number.isSafeInteger(left) && Number.isSafeInteger(right);
  const short = safe ? fromSafe(left + right, a.den * b.den) : undefined;
  if (short) return short;
  return fromBig(BigInt(a.num) * BigInt(b.den) + BigInt(b.num) * BigInt(a.den), BigInt(a.den) * BigInt(b.den));
}

/** `a - b`, exact. */
export function minus(a: Fraction, b: Fraction): Fraction {
  return plus(a, { num: -b.num, den: b.den });
}

/** `a × b`, exact. */
export function times(a: Fraction, b: Fraction): Fraction {
  const short = fromSafe(a.num * b.num, a.den * b.den);
  if (short) return short;
  return fromBig(BigInt(a.num) * BigInt(b.num), BigInt(a.den) * BigInt(b.den));
}

/** `a ÷ b`, exact. @throws RangeError if `b` is zero. */
export function over(a: Fraction, b: Fraction): Fraction {
  return fromBig(BigInt(a.num) * BigInt(b.den), BigInt(a.den) * BigInt(b.num));
}

/** Below zero, zero or above zero as `a` is less than, equal to or more than `b`. */
export function compare(a: Fraction, b: Fraction): number {
  const [left, right] = [a.num * b.den, b.num * a.den];
  if (Number.isSafeInteger(left) && Number.isSafeInteger(right)) return left - right;
  const difference = BigInt(a.num) * BigInt(b.den) - BigInt(b.num) * BigInt(a.den);
  return difference < 0n ? -1 : difference > 0n ? 1 : 0;
}

/** The greatest whole number that is not above `a`. */
export function floor(a: Fraction): number {
  // The remainder of two doubles is exact, their quotient is not.
  if (a.num >= 0) return (a.num - (a.num % a.den)) / a.den;
  const [num, den] = [BigInt(a.num), BigInt(a.den)];
  const remainder = ((num % den) + den) % den;
  return Number((num - remainder) / den);
}

/** The least whole number that is not below `a`. */
export function ceil(a: Fraction): number {
  return -floor({ num: -a.num, den: a.den }) || 0;
}

/** The nearest double, for drawing and for sorting on screen only; never to compute with. */
export function toNumber(a: Fraction): number {
  return a.num / a.den;
}

/**
 * Reads a decimal such as `12.345` or `-0.5` exactly.
 * @returns undefined where the text is no plain decimal or has too many digits to be kept exactly.
 */
export function fromDecimal(text: string): Fraction | undefined {
  const match = /^([+-]?)(\d{1,15})(?:\.(\d{1,9}))?$/.exec(text.trim());
  if (!match) return undefined;
  const digits = match[3] ?? '';
  const whole = BigInt(`${match[2]}${digits}`);
  try {
    return fromBig(match[1] === '-' ? -whole : whole, 10n ** BigInt(digits.length));
  } catch {
    return undefined;
  }
}

/** The decimal text of `a` with `places` digits after the point, rounded towards minus infinity. */
export function toDecimal(a: Fraction, places: number): string {
  return decimalOf(floor(times(a, fraction(10 ** places))), places);
}

/**
 * The same, rounded towards plus infinity: for the start of something, since the last digit that lies before it would still
 * show what came before.
 */
export function toDecimalUp(a: Fraction, places: number): string {
  return decimalOf(ceil(times(a, fraction(10 ** places))), places);
}

function decimalOf(scaled: number, places: number): string {
  const digits = String(Math.abs(scaled)).padStart(places + 1, '0');
  const text = places === 0 ? digits : `${digits.slice(0, -places)}.${digits.slice(-places)}`;
  return scaled < 0 ? `-${text}` : text;
}

/** No time line is longer than this, in seconds: 1,000 hours. What lies beyond is a slip, and would not stay exact. */
export const LONGEST_TIME = 3_600_000;

/** Whether a time lies on a time line that there can be, on either side of its start. */
export function isWithinReach({ num, den }: Fraction): boolean {
  return Math.abs(num / den) <= LONGEST_TIME;
}
