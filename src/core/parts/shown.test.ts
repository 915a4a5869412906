import { describe, expect, it } from 'vitest';
import { shownDifferences, shownNow, undecided, undecidedParts } from './shown';
import type { PartsShown } from './values';

const MEANT: PartsShown = { title: 'A keel', tags: ['keel'], about: { category: 'craft', place: 'The yard' } };
const read = (shown: Partial<PartsShown>, before = {}) => shownNow(before, MEANT, { ...MEANT, ...shown });
const fields = (fresh: { field: string }[]) => fresh.map(({ field }) => field);

describe('what a live video shows', () => {
  it('is told once, and again only where it is something else', () => {
    const first = read({ title: 'A keel!' });
    expect(first.kept).toEqual({ title: { shown: 'A keel!', differs: 'open' } });
    expect(fields(first.fresh)).toEqual(['title']);
    expect(read({ title: 'A keel!' }, first.kept).fresh).toEqual([]);
    expect(fields(read({ title: 'A keel!', tags: [] }, first.kept).fresh)).toEqual(['tags']);
    expect(fields(read({ title: 'Another' }, first.kept).fresh)).toEqual(['title']);
    expect(read({}, first.kept)).toEqual({ kept: {}, fresh: [] });
  });

  it('is told by its fields: one more in the same part alone', () => {
    const first = read({ about: { category: 'music', place: 'The yard' } });
    const second = read({ about: { category: 'music', place: 'The slip' } }, first.kept);
    expect([fields(first.fresh), fields(second.fresh)]).toEqual([['category'], ['place']]);
  });

  it('stays left as it is, until it changes', () => {
    const left = { title: { shown: 'A keel!', differs: 'left' as const } };
    const again = read({ title: 'A keel!', tags: ['oak'] }, left).kept;
    expect(again).toMatchObject({ title: { differs: 'left' }, tags: { differs: 'open' } });
    expect(undecidedParts(again)).toEqual(['tags']);
    expect(undecidedParts(read({ title: 'Another' }, left).kept)).toEqual(['title']);
    expect(fields(undecided(shownDifferences(again, MEANT)))).toEqual(['tags']);
    expect(shownDifferences(again, MEANT)[0]).toEqual({
      ...{ part: 'title', field: 'title', meant: 'A keel', shown: 'A keel!', left: true },
    });
  });

  it('is known again where the site shows nothing of it', () => {
    const first = read({ title: undefined });
    expect(first.fresh).toMatchObject([{ field: 'title', shown: 'nothing' }]);
    const kept = JSON.parse(JSON.stringify(first.kept));
    expect(read({ title: undefined }, kept).fresh).toEqual([]);
    expect(shownDifferences(kept, MEANT)).toMatchObject([{ shown: 'nothing' }]);
  });
});
