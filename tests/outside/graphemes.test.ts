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

  it('are those of the engine’s own segmenter, however long the text and wherever it is taken apart', () => {
    const segmenter = new Intl.Segmenter('en', { granularity: 'grapheme' });
    const whole = (text: string) => Array.from(segmenter.segment(text), ({ segment }) => segment);
    const parts = CASES.map((each) => each.join(''));
    const long = [
      '\u0301'.repeat(700),
      '🇳🇴'.repeat(150),
      '👩🏽‍🔧\u200d'.repeat(80),
      '🏽'.repeat(101),
      'plank '.repeat(60),
    ];
    const text = fc.array(fc.constantFrom(...parts, ...long), { maxLength: 60 }).map((all) => all.join(''));
    fc.assert(
      fc.property(text, (each) => {
        expect([...graphemes(each)]).toEqual(whole(each));
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
