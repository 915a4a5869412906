import { describe, expect, it } from 'vitest';
import { mayTakeOver, shownNow, undecided } from './shows';

const title = { field: 'title', meant: 'A keel', shown: 'A keel!' };
const tags = { field: 'tags', meant: 'keel', shown: 'keel, oak' };

describe('what a live video shows', () => {
  it('is told once, and again only where it is something else', () => {
    const first = shownNow([], [title]);
    expect(first).toEqual({ all: [title], fresh: [title] });
    expect(shownNow(first.all, [title, tags]).fresh).toEqual([tags]);
    expect(shownNow(first.all, [{ ...title, shown: 'Another' }]).fresh).toHaveLength(1);
    expect(shownNow(first.all, [])).toEqual({ all: [], fresh: [] });
  });

  it('stays left as it is, until it changes', () => {
    const left = [{ ...title, left: true as const }];
    expect(shownNow(left, [title]).all).toEqual(left);
    expect(undecided(shownNow(left, [title, tags]).all)).toEqual([tags]);
    expect(undecided(shownNow(left, [{ ...title, shown: 'Another' }]).all)).toHaveLength(1);
  });

  it('can be taken over where it is words, and chapters only with the text that they stand in', () => {
    expect(mayTakeOver([title, tags], true)).toBe(true);
    expect(mayTakeOver([{ field: 'chapters', meant: '', shown: '' }], true)).toBe(false);
    const both = [
      { field: 'chapters', meant: '', shown: '' },
      { ...title, field: 'description' },
    ];
    expect([true, false].map((inText) => mayTakeOver(both, inText))).toEqual([true, false]);
    for (const field of ['privacy', 'file', 'thumbnail'])
      expect(mayTakeOver([title, { ...title, field }], true)).toBe(false);
    expect(mayTakeOver([], true)).toBe(false);
  });
});
