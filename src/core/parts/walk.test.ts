import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fieldgateProfile } from '@/sites/fieldgate/profile';
import { lanternfoldProfile } from '@/sites/lanternfold/profile';
import { pipwireProfile } from '@/sites/pipwire/profile';
import { SITE_PROFILES } from '@/sites/profiles';
import { stallmarketProfile } from '@/sites/stallmarket/profile';
import { type Declarations, PLAIN_DECLARATIONS } from '../declarations';
import type { WantedFrom } from './part';
import { PARTS, partNames } from './registry';
import { mayTakeOver, takenOver } from './take-over';
import type { PartName, PartsGiven, PartsShown } from './values';
import {
  changedFields,
  differences,
  expectedOf,
  givenAsShown,
  hasAll,
  type PartsAtSite,
  partFindings,
  partsToGive,
  wantedParts,
} from './walk';

const FROM: WantedFrom = {
  words: {
    title: 'Keel',
    text: 'Two lines.',
    tags: ['keel'],
    chapters: [{ stamp: '0:00', title: 'Start' }],
    chapterTimes: [{ num: 0, den: 1 }],
  },
  declarations: { ...PLAIN_DECLARATIONS, forChildren: false, credits: [{ role: 'Camera', name: 'Isa' }] },
  pictureDigest: 'a'.repeat(64),
  moment: { num: 3, den: 1 },
  captions: [{ id: 'c1', language: 'en' }],
  playlists: ['p1'],
  privacy: 'everyone',
  passwordMark: undefined,
};
const wanted = (from: Partial<WantedFrom> = {}, words: Partial<WantedFrom['words']> = {}, site = lanternfoldProfile) =>
  wantedParts({ ...FROM, ...from, words: { ...FROM.words, ...words } }, site);
const declaring = (declared: Partial<Declarations>) => ({ declarations: { ...FROM.declarations, ...declared } });
const given = (parts: PartsGiven): PartsAtSite =>
  Object.fromEntries(Object.entries(parts).map(([part, value]) => [part, { given: value }]));
const titleOf = (id: string) => ({ p1: 'Diary', p2: 'Tools' })[id] ?? id;

describe('what a site is meant to get', () => {
  it('is of the parts that it has, and no others', () => {
    expect(Object.keys(wanted())).toEqual([
      ...['privacy', 'chapters', 'title', 'text', 'tags', 'picture', 'captions'],
      ...['about', 'audience', 'permissions', 'money', 'telling', 'playlists'],
    ]);
    expect(Object.keys(wanted({ playlists: undefined }, {}, pipwireProfile))).toEqual(['privacy', 'text', 'moment']);
    expect(Object.keys(wanted({ playlists: undefined }, {}, stallmarketProfile))).toEqual([
      ...['privacy', 'title', 'text', 'picture', 'products'],
    ]);
    expect(wanted({}, {}, fieldgateProfile)).toMatchObject({ credits: { credits: [{ role: 'Camera', name: 'Isa' }] } });
  });

  it('has the times of chapters only where the site is told them', () => {
    expect(wanted().chapters?.times).toEqual([]);
    expect(wanted({}, {}, fieldgateProfile).chapters?.times).toEqual([{ num: 0, den: 1 }]);
  });

  it('has every declaration in one part, each site’s among them', () => {
    const all = Object.keys(PLAIN_DECLARATIONS);
    const fields = Object.values(SITE_PROFILES).flatMap(
      (site) => site.declares?.groups.flatMap((group) => group.fields) ?? [],
    );
    expect(fields.filter((field) => !all.includes(field))).toEqual([]);
    const parts = Object.values(SITE_PROFILES).map((site) =>
      wantedParts({ ...FROM, ...declaring({ category: 'craft' }) }, site),
    );
    for (const [index, site] of Object.values(SITE_PROFILES).entries()) {
      const taken = (site.declares?.groups.flatMap((group) => group.fields) ?? []).sort();
      const told = partNames().flatMap((name) => {
        const value = parts[index]?.[name];
        return PARTS[name].place.startsWith('declared-') && value ? Object.keys(value) : [];
      });
      expect(told.sort()).toEqual(taken);
    }
  });
});

describe('what a site has not been given', () => {
  const now = wanted();

  it('is all that there is of a new video, and nothing where it has all', () => {
    expect(partsToGive({}, now)).toEqual(Object.keys(now));
    expect(partsToGive({}, wanted({ captions: [], playlists: [], pictureDigest: undefined }))).not.toContain(
      'captions',
    );
    expect(partsToGive(given(now), now)).toEqual([]);
    expect(hasAll(given(now), now)).toBe(true);
  });

  it('is each part that is another one, and no other', () => {
    const to = (from: Partial<WantedFrom>, words: Partial<WantedFrom['words']> = {}) =>
      partsToGive(given(now), wanted(from, words));
    expect(to({}, { title: 'Keel laid' })).toEqual(['title']);
    expect(to({}, { tags: [] })).toEqual(['tags']);
    expect(to({}, { chapters: [] })).toEqual(['chapters']);
    expect(to({ pictureDigest: undefined })).toEqual(['picture']);
    expect(to({ captions: [] })).toEqual(['captions']);
    expect(to({ captions: [{ id: 'c2', language: 'en' }] })).toEqual(['captions']);
    expect(to({ captions: [{ id: 'c1', language: 'en', moved: '{}' }] })).toEqual(['captions']);
    expect(to({ playlists: ['p2', 'p1'] })).toEqual(['playlists']);
    expect(to(declaring({ comments: 'off' }))).toEqual(['permissions']);
    expect(to({ privacy: 'password', passwordMark: 'm' })).toEqual(['privacy']);
  });

  it('is what it was asked to take and has not confirmed, though that is wanted no more', () => {
    const asked = { ...given(now), title: { given: 'Keel', asked: 'Keal' } };
    expect(partsToGive(asked, now)).toEqual(['title']);
    expect(hasAll(asked, now)).toBe(false);
  });

  it('is what was forgotten, emptied parts too', () => {
    const none = wanted({ captions: [], pictureDigest: undefined });
    expect(partsToGive({ ...given(none), picture: {}, captions: {} }, none)).toEqual(['picture', 'captions']);
  });

  it('keeps a video closed only by what must be right before people see it', () => {
    const failed = (part: PartName) => ({ ...given(now), [part]: { failed: 'no' } });
    expect([hasAll(failed('captions'), now), hasAll(failed('playlists'), now)]).toEqual([true, true]);
    for (const part of ['title', 'text', 'audience', 'privacy', 'picture'] as const) {
      expect(hasAll(failed(part), now), part).toBe(false);
    }
    expect(hasAll({ ...given(now), captions: {} }, now)).toBe(false);
  });
});

describe('two values', () => {
  // Unicode, UAX #15: é composed is U+00E9, decomposed e and U+0301.
  it('are the same where their signs are composed otherwise', () => {
    const [composed, decomposed] = ['Caf\u00e9', 'Cafe\u0301'];
    const both = [composed, decomposed].map((title) => wanted({}, { title, text: title, tags: [title] }));
    expect(partsToGive(given(both[0] ?? {}), both[1] ?? {})).toEqual([]);
    const [meant, shown] = both.map((parts) => expectedOf(parts, lanternfoldProfile));
    expect(differences(meant ?? {}, shown ?? {})).toEqual([]);
  });

  it('are the same where nothing was ever said', () => {
    const untold = { ...wanted(), permissions: {}, about: {} };
    expect(changedFields(untold, wanted(), titleOf).map(({ field }) => field)).toEqual([
      ...['licence', 'embedding', 'comments', 'ratings'],
    ]);
    expect(differences({ about: { place: '' } }, { about: {} })).toEqual([]);
  });

  it('say each field with both, who sees it first', () => {
    const is = wanted(
      { privacy: 'private', playlists: ['p2'], ...declaring({ comments: 'off' }) },
      { title: 'Keel laid', tags: ['keel', 'oak'] },
    );
    expect(changedFields(wanted(), is, titleOf)).toEqual([
      { part: 'privacy', field: 'privacy', was: 'everyone', is: 'private' },
      { part: 'title', field: 'title', was: 'Keel', is: 'Keel laid' },
      { part: 'tags', field: 'tags', was: 'keel', is: 'keel, oak' },
      { part: 'permissions', field: 'comments', was: 'open', is: 'off' },
      { part: 'playlists', field: 'playlists', was: 'Diary', is: 'Tools' },
    ]);
  });

  it('that differ for a site are told by some line, and those that do not by none', () => {
    const variants = [
      wanted(),
      wanted({ pictureDigest: undefined, captions: [], playlists: [] }, { chapters: [], tags: [] }),
      wanted({ captions: [{ id: 'c2', language: 'en' }], pictureDigest: 'b'.repeat(64) }, { title: 'K', text: '' }),
      wanted({
        privacy: 'password',
        passwordMark: 'a',
        ...declaring({ countries: { way: 'only in', codes: ['CA'] } }),
      }),
      wanted({ privacy: 'password', passwordMark: 'b' }),
      { ...wanted(), moment: { num: 1, den: 3 } },
    ].map((parts) => ({ moment: '' as const, ...parts }));
    for (const was of variants) {
      for (const is of variants) {
        const told = new Set(changedFields(was, is, titleOf).map(({ part }) => part));
        expect([...told]).toEqual(partsToGive(given(was), is));
      }
    }
  });
});

const SHOWN: PartsShown = {
  ...expectedOf(
    wanted({
      playlists: ['p1', 'p2'],
      captions: [
        { id: '1', language: 'en' },
        { id: '2', language: 'de' },
      ],
    }),
    lanternfoldProfile,
  ),
  file: 'f'.repeat(64),
};
const shownAs = (shown: Partial<PartsShown>) => differences(SHOWN, { ...SHOWN, ...shown });

describe('what a site shows', () => {
  it('is as it was meant where nothing differs, whatever the order of playlists and languages', () => {
    expect(shownAs({})).toEqual([]);
    expect(shownAs({ playlists: ['p2', 'p1'], captions: ['de', 'en'] })).toEqual([]);
    expect(differences({}, SHOWN)).toEqual([]);
  });

  it.each<[PartName, string, Partial<PartsShown>]>([
    ['title', 'title', { title: 'Keel ' }],
    ['text', 'text', { text: '' }],
    ['tags', 'tags', { tags: ['oak', 'keel'] }],
    ['chapters', 'chapters', { chapters: [] }],
    ['privacy', 'privacy', { privacy: 'private' }],
    ['playlists', 'playlists', { playlists: ['p1'] }],
    ['picture', 'thumbnail', { picture: undefined }],
    ['file', 'file', { file: 'c'.repeat(64) }],
    ['captions', 'captions', { captions: ['en'] }],
    ['about', 'category', { about: { category: 'music' } }],
    ['audience', 'aimed at children', { audience: { ...SHOWN.audience, forChildren: true } }],
    ['money', 'adverts', { money: { ...SHOWN.money, adverts: 'by context' } }],
  ])('is told at %s by %s, and nothing else, where that differs', (part, field, shown) => {
    expect(shownAs(shown).map((each) => [each.part, each.field])).toEqual([[part, field]]);
  });

  it('has both sides as they are, and digests short', () => {
    const [file, title] = shownAs({ title: undefined, file: 'c'.repeat(64) });
    expect(title).toEqual({ part: 'title', field: 'title', meant: 'Keel', shown: 'nothing' });
    expect(file).toEqual({ part: 'file', field: 'file', meant: 'ffffffffffff', shown: 'cccccccccccc' });
  });

  it('of removed chapters and a removed picture is compared, where a text has no lines of its own', () => {
    const none = wantedParts(
      { ...FROM, pictureDigest: undefined, words: { ...FROM.words, chapters: [] } },
      fieldgateProfile,
    );
    const meant = expectedOf(none, fieldgateProfile);
    const found = differences(meant, {
      ...meant,
      chapters: [{ stamp: '0:00', title: 'Theirs' }],
      picture: 'd'.repeat(64),
    });
    expect(found.map(({ part }) => part)).toEqual(['chapters', 'picture']);
    expect(expectedOf(wanted({}, { chapters: [] }), lanternfoldProfile).chapters).toBeUndefined();
  });

  it('differs by every sign of a text', () => {
    fc.assert(
      fc.property(fc.string(), fc.string(), (meant, shown) => {
        const same = meant.normalize('NFC') === shown.normalize('NFC');
        expect(differences({ text: meant }, { text: shown }).length).toBe(same ? 0 : 1);
      }),
    );
  });
});

describe('what a record takes over', () => {
  const may = (...parts: PartName[]) => mayTakeOver(parts, lanternfoldProfile);

  it('is words, tags, playlists and what is declared; chapters only with the text that they stand in', () => {
    expect(may('title', 'tags', 'playlists', 'permissions')).toBe(true);
    expect([may('chapters'), may('chapters', 'text')]).toEqual([false, true]);
    expect(mayTakeOver(['chapters', 'text'], fieldgateProfile)).toBe(false);
    for (const part of ['privacy', 'file', 'picture', 'video'] as const) expect(may('title', part), part).toBe(false);
    expect(may()).toBe(false);
  });

  it('is set for the channel as it is shown there', () => {
    const shown: PartsShown = {
      ...{
        title: 'Theirs',
        text: '0:00 Start\n\nTheirs',
        tags: ['theirs'],
        chapters: [{ stamp: '0:00', title: 'Start' }],
      },
      ...{ playlists: ['p2'], permissions: { comments: 'off', ratings: false } },
    };
    const textBecomes = (text: string) => `0:00 Start\n\n${text}`;
    const parts = ['title', 'text', 'tags', 'playlists', 'permissions'] as const;
    expect(takenOver(parts, { shown, textBecomes })).toEqual({
      set: {
        title: 'Theirs',
        text: 'Theirs',
        tags: { way: 'replace', items: ['theirs'] },
        comments: 'off',
        ratings: false,
      },
      playlists: ['p2'],
    });
  });

  it('counts as given as it is shown, so that what could not be taken over is still to be sent', () => {
    const there: PartsShown = { title: 'Theirs', tags: [], permissions: { comments: 'off' } };
    const now = { ...wanted(), ...givenAsShown(['title', 'tags', 'permissions'], there, wanted()) };
    expect(now).toMatchObject({ title: 'Theirs', tags: [], permissions: { comments: 'off' } });
    expect(partsToGive(given(now), wanted())).toEqual(['title', 'tags', 'permissions']);
    expect(givenAsShown(['title'], {}, wanted())).toEqual({ title: '' });
  });
});

describe('a last look at what goes out', () => {
  const FINE = wanted();
  it.each<[string, PartsGiven, string]>([
    ['lanternfold', { title: '🛶'.repeat(49) }, 'The title is 2 characters over the 96'],
    ['lanternfold', { text: 'https://a.example '.repeat(26) }, '26 links; Lanternfold takes 25'],
    ['lanternfold', { tags: Array.from({ length: 25 }, (_, n) => `t${n}`) }, '25 tags'],
    ['lanternfold', { audience: {} }, 'aimed at children'],
    ['lanternfold', { audience: { forChildren: true, adultsOnly: true } }, 'cannot be aimed at children'],
    ['fieldgate', { title: '🛶'.repeat(111) }, '1 characters over the 110'],
    ['fieldgate', { tags: ['x'.repeat(31)] }, 'longer than 30'],
    ['pipwire', { text: '👩‍👩‍👧'.repeat(241) }, '1 characters over the 240'],
    ['stallmarket', { title: 'ö'.repeat(38) }, '1 bytes over the 75'],
    ['stallmarket', { text: 'see www.example.org' }, 'no links'],
    ['stallmarket', { products: { products: [] } }, 'at least one product'],
    ['stallmarket', { title: '' }, 'The title is empty'],
  ])('finds at %s what is wrong with %j, at its part', (id, parts, says) => {
    const site = SITE_PROFILES[id];
    if (!site) throw new Error(`There is no site ${id}`);
    const [finding] = partFindings(parts, site);
    expect(finding?.what).toContain(says);
    expect(finding?.part).toBe(Object.keys(parts)[0]);
  });

  it('finds nothing where all is well', () => {
    expect(partFindings(FINE, lanternfoldProfile)).toEqual([]);
    expect(partFindings({ text: '👩‍👩‍👧'.repeat(240) }, pipwireProfile)).toEqual([]);
  });
});
