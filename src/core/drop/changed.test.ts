import { describe, expect, it } from 'vitest';
import type { Declarations } from '../declarations';
import { changedFields, type GivenToSite, givenAsShown, isGiven, wordsToGive } from './changed';

const sent: GivenToSite = {
  words: {
    title: 'Keel',
    text: 'Two lines.',
    tags: ['keel'],
    declared: { comments: 'open', adultsOnly: false },
    chapters: [{ stamp: '0:00', title: 'Start' }],
    chapterTimes: [{ num: 0, den: 1 }],
  },
  privacy: 'everyone',
  playlists: ['p1'],
  pictureDigest: 'abc',
  captions: [{ id: 'c1', language: 'en' }],
};
const name = (id: string) => ({ p1: 'Diary', p2: 'Tools' })[id] ?? id;
const changed = (now: Partial<GivenToSite>, words: Partial<GivenToSite['words']> = {}) =>
  changedFields(sent, { ...sent, ...now, words: { ...sent.words, ...words } }, name);

describe('what has changed since it was sent', () => {
  it('is nothing where nothing has', () => expect(changed({})).toEqual([]));

  it('names each field with both values, privacy first', () => {
    expect(changed({ privacy: 'private', playlists: ['p2'] }, { title: 'Keel laid', tags: ['keel', 'oak'] })).toEqual([
      { field: 'privacy', was: 'everyone', is: 'private' },
      { field: 'title', was: 'Keel', is: 'Keel laid' },
      { field: 'tags', was: 'keel', is: 'keel, oak' },
      { field: 'playlists', was: 'Diary', is: 'Tools' },
    ]);
  });

  it('names pictures, chapters, captions and declarations', () => {
    const all = changed(
      { pictureDigest: undefined, captions: [] },
      { chapters: [], declared: { comments: 'off', adultsOnly: false } },
    );
    expect(all.map(({ field }) => field)).toEqual(['chapters', 'thumbnail', 'captions', 'comments']);
    expect(all.find(({ field }) => field === 'captions')).toMatchObject({ was: 'en', is: '' });
  });

  it('is nothing where a site was never told what says nothing', () => {
    const untold: Partial<Declarations> = {
      comments: 'open',
      adultsOnly: false,
      broadcast: '',
      countries: { way: 'everywhere', codes: [] },
    };
    expect(changed({}, { declared: untold })).toEqual([]);
    const closed = changed({}, { declared: { ...untold, countries: { way: 'only in', codes: ['CA'] } } });
    expect(closed).toEqual([{ field: 'countries', was: '', is: 'only in Canada' }]);
  });

  it('sees other captions in the same language', () => {
    expect(changed({ captions: [{ id: 'c2', language: 'en' }] })).toHaveLength(1);
  });
});

describe('what a site was given, with what it really has', () => {
  const there = {
    title: 'Theirs',
    text: '',
    tags: ['theirs'],
    chapters: [],
    privacy: 'private' as const,
    groups: [],
    pictureDigest: undefined,
    fileDigest: undefined,
    captions: ['de'],
    declared: { comments: 'off' as const },
  };

  it('has just the fields that are named from there, so that these alone go out again', () => {
    const now = givenAsShown(sent, new Set(['title', 'comments', 'privacy']), there);
    expect(changedFields(now, sent, name)).toEqual([
      { field: 'privacy', was: 'private', is: 'everyone' },
      { field: 'title', was: 'Theirs', is: 'Keel' },
      { field: 'comments', was: 'off', is: 'open' },
    ]);
    expect(wordsToGive(now.words, sent.words)).toEqual({ title: 'Keel', declared: { comments: 'open' } });
  });

  it('has every field that can be read, emptied ones too', () => {
    const fields = ['description', 'chapters', 'tags', 'playlist', 'thumbnail', 'captions'];
    const changed = changedFields(givenAsShown(sent, new Set(fields), there), sent, name).map(({ field }) => field);
    expect(changed).toEqual(['text', 'chapters', 'tags', 'playlists', 'thumbnail', 'captions']);
    expect(givenAsShown(sent, new Set(), there)).toEqual(sent);
  });
});

describe('what a site has not been given yet', () => {
  const to = (words: Partial<GivenToSite['words']>) => wordsToGive(sent.words, { ...sent.words, ...words });

  it('is all where it was given nothing, and nothing where it has all', () => {
    expect(wordsToGive(undefined, sent.words)).toEqual(sent.words);
    expect(to({})).toEqual({});
  });

  it('is the fields that have changed, and of what is declared only that which has', () => {
    expect(to({ title: 'Keel laid' })).toEqual({ title: 'Keel laid' });
    expect(to({ tags: [] })).toEqual({ tags: [] });
    expect(to({ declared: { comments: 'off', adultsOnly: false } })).toEqual({ declared: { comments: 'off' } });
  });

  it('is every chapter with its time and the end where one of them has changed', () => {
    const { chapters, chapterTimes } = sent.words;
    expect(to({ duration: { num: 9, den: 1 } })).toEqual({ chapters, chapterTimes, duration: { num: 9, den: 1 } });
  });

  it('tells a field that was given now from one that somebody else has changed', () => {
    const is = { ...sent, words: { ...sent.words, text: 'Three lines.' }, playlists: ['p2'] };
    const given = ['title', 'description', 'chapters', 'tags', 'playlist', 'privacy', 'file'].filter((field) =>
      isGiven(field, sent, is),
    );
    expect(given).toEqual(['description', 'chapters', 'playlist']);
    expect(isGiven('title', undefined, is)).toBe(true);
  });
});
