import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compare, floor, fraction, fromDecimal, minus, over, plus, times, toDecimal } from './fraction';

const anyFraction = fc
  .tuple(fc.integer({ min: -1e6, max: 1e6 }), fc.integer({ min: 1, max: 1e5 }))
  .map(([num, den]) => fraction(num, den));

describe('fractions', () => {
  it('stand in lowest terms with the sign above', () => {
    expect(fraction(60000, -2002)).toEqual({ num: -30000, den: 1001 });
    expect(fraction(0, 7)).toEqual({ num: 0, den: 1 });
  });

  it('refuse what cannot be exact', () => {
    expect(() => fraction(1, 0)).toThrow(RangeError);
    expect(() => fraction(0.5)).toThrow(RangeError);
    expect(() => times(fraction(Number.MAX_SAFE_INTEGER), fraction(3))).toThrow(RangeError);
  });

  it('add and take away, multiply and divide without loss', () => {
    fc.assert(
      fc.property(anyFraction, anyFraction, (a, b) => {
        expect(minus(plus(a, b), b)).toEqual(a);
        if (b.num !== 0) expect(over(times(a, b), b)).toEqual(a);
      }),
    );
  });

  it('floor to the whole number below, also below zero', () => {
    fc.assert(
      fc.property(anyFraction, (a) => {
        const whole = fraction(floor(a));
        expect(compare(whole, a)).toBeLessThanOrEqual(0);
        expect(compare(minus(a, whole), fraction(1))).toBeLessThan(0);
      }),
    );
  });

  it('go to decimals and back', () => {
    expect(fromDecimal('12.345')).toEqual({ num: 2469, den: 200 });
    expect(fromDecimal('-0.5')).toEqual({ num: -1, den: 2 });
    expect(fromDecimal('1e3')).toBeUndefined();
    expect(fromDecimal('')).toBeUndefined();
    expect(toDecimal(fraction(1001, 30000), 6)).toBe('0.033366');
    expect(toDecimal(fraction(-1, 2), 1)).toBe('-0.5');
    expect(toDecimal(fraction(7), 0)).toBe('7');
  });
});
