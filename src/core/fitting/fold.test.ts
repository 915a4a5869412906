import { describe, expect, it } from 'vitest';
import type { Fold } from '../delivery';
import { beforeFold } from './fold';

const fold = (lines: number, most: number, unit: Fold['unit'] = 'utf16'): Fold => ({ lines, most, unit });

describe('what shows before the fold', () => {
  it.each([
    ['a\nb\nc', fold(2, 100), 'a\nb'],
    ['abcdef', fold(2, 4), 'abcd'],
    ['öööö', fold(1, 5, 'utf8'), 'öö'],
    ['👩‍👩‍👧👩‍👩‍👧', fold(1, 1, 'grapheme'), '👩‍👩‍👧'],
    ['👩‍👩‍👧x', fold(1, 3), ''],
    ['', fold(3, 160), ''],
  ])('of %j is %j', (text, rule, shown) => {
    expect(beforeFold(text, rule)).toBe(shown);
  });
});
