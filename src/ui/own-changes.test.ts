import { describe, expect, it } from 'vitest';
import { isReadSince, noteOwnChanges } from './own-changes';

const SHEET = ['sheet', 'a'];

describe('changes that a page made itself', () => {
  it('are no reason to read again what it has read since', () => {
    noteOwnChanges([7, 9], SHEET);
    expect(isReadSince([7, 9], ['sheet', 'a'])).toBe(true);
    expect(isReadSince([9], SHEET)).toBe(true);
  });

  it('are one where somebody else’s is among them, or nobody knows which they are', () => {
    expect(isReadSince([7, 8, 9], SHEET)).toBe(false);
    expect(isReadSince([], SHEET)).toBe(false);
  });

  it('are one for what was not read since', () => {
    expect(isReadSince([7], ['sheet', 'b'])).toBe(false);
    expect(isReadSince([7], ['layer', 'a'])).toBe(false);
  });

  it('are forgotten in time, the oldest first', () => {
    noteOwnChanges(
      Array.from({ length: 500 }, (_, n) => 1000 + n),
      SHEET,
    );
    expect([isReadSince([7], SHEET), isReadSince([1000, 1499], SHEET)]).toEqual([false, true]);
  });
});
