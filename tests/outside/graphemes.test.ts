import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { beforeFold } from '@/core/fitting';
import { textLength } from '@/core/words';

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
const isOlder = (graphemes: string[]) =>
  graphemes.join('').includes('\u2701\u200d') && !/\p{Extended_Pictographic}/u.test('\u2701');

describe('graphemes as a site counts them (UAX #29)', () => {
  it('are those of the published test', () => {
    expect(CASES.length).toBeGreaterThan(600);
    const wrong = CASES.filter((graphemes) => textLength(graphemes.join(''), 'grapheme') !== graphemes.length);
    expect(wrong.filter((graphemes) => !isOlder(graphemes))).toEqual([]);
  });

  it('are never cut where a text is folded', () => {
    for (const graphemes of CASES.filter((each) => !isOlder(each) && !each.join('').includes('\n'))) {
      const [first = ''] = graphemes;
      const fold = { lines: 1, most: 1, unit: 'grapheme' as const };
      expect(beforeFold(graphemes.join(''), fold)).toBe(first);
    }
  });
});
