import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type FoldRule, foldAt } from './folded';

const RULES: Record<string, FoldRule> = {
  units: { lines: 3, most: 20, sizeOf: (sign) => sign.length },
  points: { lines: 2, most: 20, sizeOf: (sign) => [...sign].length },
  bytes: { lines: 2, most: 20, sizeOf: (sign) => Buffer.byteLength(sign) },
};
const first = (text: string, rule: FoldRule) => text.slice(0, foldAt(text, rule));

describe('the fold of a watch page', () => {
  it.each([
    ['after so many lines', 'a\nb\nc\nd', 'units', 'a\nb\nc'],
    ['after so many signs', 'a plank that is longer than that', 'units', 'a plank that is long'],
    ['by code points', '🛶'.repeat(21), 'points', '🛶'.repeat(20)],
    ['by bytes, no sign in part', '🛶'.repeat(6), 'bytes', '🛶'.repeat(5)],
    ['and never inside of a family', `${'x'.repeat(18)}👩‍👩‍👧`, 'units', 'x'.repeat(18)],
    ['nowhere in a short text', 'a\nb', 'points', 'a\nb'],
    ['with its empty lines counted', '\n\n\nd', 'units', '\n\n'],
  ])('stands %s', (_, text, rule, shown) => {
    expect(first(text, RULES[rule] as FoldRule)).toBe(shown);
  });

  it('shows a start of the text that keeps the rule, and all of it where that does', () => {
    const text = fc
      .array(fc.constantFrom('a', 'ö', '🛶', '\n', '👩‍👩‍👧', ' '), { maxLength: 60 })
      .map((all) => all.join(''));
    fc.assert(
      fc.property(text, fc.constantFrom(...Object.values(RULES)), (each, rule) => {
        const shown = first(each, rule);
        const size = (part: string) => rule.sizeOf(part);
        expect(each.startsWith(shown)).toBe(true);
        expect(size(shown)).toBeLessThanOrEqual(rule.most);
        expect(shown.split('\n').length).toBeLessThanOrEqual(rule.lines);
        if (size(each) <= rule.most && each.split('\n').length <= rule.lines) expect(shown).toBe(each);
      }),
    );
  });
});
