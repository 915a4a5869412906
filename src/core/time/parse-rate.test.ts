import { describe, expect, it } from 'vitest';
import { parseRate } from './parse-rate';
import { exactRate, nominal, rate, rateName } from './rate';

const drop = (num: number) => rate(num, 1001, true);

describe('a rate as people write it', () => {
  // The rates that SMPTE ST 12-1 and the makers of cameras name; common practice, values from memory.
  it.each([
    ['25', rate(25)],
    [' 24 ', rate(24)],
    ['23.976', rate(24_000, 1001)],
    ['23.98', rate(24_000, 1001)],
    ['29.97', rate(30_000, 1001)],
    ['29.97df', drop(30_000)],
    ['29.97 DF', drop(30_000)],
    ['29.97ndf', rate(30_000, 1001)],
    ['59.94 df', drop(60_000)],
    ['119.88', rate(120_000, 1001)],
    ['12.5', rate(25, 2)],
    ['24000/1001', rate(24_000, 1001)],
    ['30000/1001 df', drop(30_000)],
    ['50/2', rate(25)],
    ['1000000/1', rate(1_000_000)],
  ])('%j is read', (text, is) => {
    expect(parseRate(text)).toEqual(is);
  });

  it.each(
    [
      [
        '',
        ' ',
        'df',
        'x25',
        '25x',
        '25 fps',
        '-25',
        '0',
        '0/1',
        '25/0',
        '0/0',
        '29.97/1',
        '25/',
        '/2',
        '25/1/2',
        '1e3',
        '25 d',
      ],
      // No numbers are left out at these (SMPTE ST 12-1).
      ['25df', '24df', '23.976df', '24000/1001df'],
      ['200000', '12345678', '25/12345678'],
    ].flat(),
  )('%j is none', (text) => {
    expect(parseRate(text)).toBeUndefined();
  });
});

describe('the exact rate behind a number', () => {
  it('is whole, a multiple of 1000/1001, or what was written', () => {
    expect(exactRate(25)).toEqual(rate(25));
    expect(exactRate(24.999_999_9)).toEqual(rate(25));
    expect(exactRate(29.97)).toEqual(rate(30_000, 1001));
    expect(exactRate(29.964)).toEqual(rate(7491, 250));
    expect(exactRate(7.5)).toEqual(rate(15, 2));
    expect(exactRate(100_000)).toEqual(rate(100_000));
  });

  it('is none where it cannot be a rate', () => {
    for (const value of [0, -25, 100_001, Number.NaN, Number.POSITIVE_INFINITY])
      expect(exactRate(value)).toBeUndefined();
    expect(() => rate(0)).toThrow('A frame rate is above zero');
    expect(() => rate(-25)).toThrow('A frame rate is above zero');
  });

  it('is said without zeros at its end, and counted by the next whole number', () => {
    expect([rate(25), rate(25, 2), rate(24_000, 1001), rate(100), drop(30_000)].map(rateName)).toEqual([
      ...['25', '12.5', '23.976', '100', '29.97 drop'],
    ]);
    expect([rate(25), rate(24_000, 1001), rate(60_000, 1001)].map(nominal)).toEqual([25, 24, 60]);
  });
});
