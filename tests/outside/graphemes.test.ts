import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { beforeFold } from '@/core/fitting';
import { graphemes, textLength } from '@/core/words';

/** Unicode's GraphemeBreakTest, version 15.0.0: code points with ÷ where a grapheme ends and × where none does. */
const DATA = new URL('data/GraphemeBreakTest.txt', import.meta.url);
const CASES = readFileSync(DATA, 'utf8')
  .split('\n')
  .map((line) => line.replace(/#.*/, '').trim())
  .filter(Boolean)
  .map((line) =>
    line
      .split('÷')
      .map((grapheme) => grapheme.split(/[×\s]+/).filter(Boolean))
      .filter((signs) => signs.length > 0)
      .map((signs) => String.fromCodePoint(...signs.map((sign) => Number.parseInt(sign, 16)))),
  );

/** U+2701 is no Extended_Pictographic any more in the version of Unicode that newer Node.js has, so that GB11 joins it not. */
const isOlder = (all: string[]) =>
  all.join('').includes('\u2701\u200d') && !/\p{Extended_Pictographic}/u.test('\u2701');

describe('graphemes as a site counts them (UAX #29)', () => {
  it('are those of the published test', () => {
    expect(CASES.length).toBeGreaterThan(600);
    const wrong = CASES.filter((each) => textLength(each.join(''), 'grapheme') !== each.length);
    expect(wrong.filter((each) => !isOlder(each))).toEqual([]);
  });

  it('are those of the published test, one after the other, however long the text and wherever it is taken apart', () => {
    // Rules GB4 and GB5 of UAX #29: nothing is joined to a control, so that it keeps what stands on either side apart.
    const CONTROL = '\u0001';
    // Beside the published cases some without end, by the rule that each is about.
    const long: string[][] = [
      // GB9: however many marks, with the sign that they stand on.
      [`e${'\u0301'.repeat(700)}`],
      // GB12: flags are pairs.
      Array.from({ length: 150 }, () => '🇳🇴'),
      // GB11: joined by ZWJ.
      [Array.from({ length: 80 }, () => '👩🏽').join('\u200d')],
      // GB9 again: a skin tone goes with what it follows.
      [`👩${'🏽'.repeat(100)}`],
      // GB999: everything else stands for itself.
      [...'plank '.repeat(60)],
    ];
    const known = [...CASES.filter((each) => !isOlder(each)), ...long];
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...known), { maxLength: 60 }), (all) => {
        const apart = all.flatMap((each) => [...each, CONTROL]);
        expect([...graphemes(apart.join(''))]).toEqual(apart);
      }),
      { numRuns: 60 },
    );
  });

  it('are never cut where a text is folded', () => {
    for (const whole of CASES.filter((each) => !isOlder(each) && !each.join('').includes('\n'))) {
      const [first = ''] = whole;
      const fold = { lines: 1, most: 1, unit: 'grapheme' as const };
      expect(beforeFold(whole.join(''), fold)).toBe(first);
    }
  });
});
