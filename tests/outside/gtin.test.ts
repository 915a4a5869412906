import { describe, expect, it } from 'vitest';
import { gtinCheckDigit, gtinFinding } from '@/core/declarations';

describe('GTIN check digits by the GS1 General Specifications, section 7.9', () => {
  // GS1’s worked example of "How to calculate a check digit manually": 629104150021 takes the check digit 3. From memory.
  it('gives the digit of the worked example', () => {
    expect(gtinCheckDigit('629104150021')).toBe(3);
    expect(gtinFinding('6291041500213')).toBeUndefined();
  });

  // Numbers that are printed on things everywhere and whose check digits everybody can compute; from memory.
  it.each(['96385074', '036000291452', '4006381333931', '00012345600012'])('%s is one', (number) => {
    expect(gtinFinding(number)).toBeUndefined();
  });

  it('finds every slip of one digit, and every swap of neighbours that do not differ by five', () => {
    const number = '6291041500213';
    for (let at = 0; at < number.length; at += 1) {
      for (let digit = 0; digit < 10; digit += 1) {
        const slip = number.slice(0, at) + digit + number.slice(at + 1);
        if (slip !== number) expect(gtinFinding(slip), slip).toBeDefined();
      }
      const [a, b] = [Number(number[at]), Number(number[at + 1])];
      if (at + 1 < number.length && a !== b && Math.abs(a - b) !== 5) {
        const swapped = number.slice(0, at) + b + a + number.slice(at + 2);
        expect(gtinFinding(swapped), swapped).toBeDefined();
      }
    }
  });
});
