import { describe, expect, it } from 'vitest';
import { PLAIN_DECLARATIONS } from '../declarations';
import type { CutFacts, SiteRules } from '../delivery';
import { fraction } from '../time';
import { differences, fieldsMeant } from './proof';
import { missingFor, type ReadinessInput } from './readiness';
import { wordsForSite } from './words-for-site';

const SITE: SiteRules = {
  name: 'Testfold',
  file: {
    containers: ['mp4'],
    videoCodecs: ['h264'],
    largest: 1000,
    longest: 60,
    mostPixels: { width: 1920, height: 1080 },
  },
  title: { most: 10, unit: 'utf16' },
  text: { most: 50, unit: 'utf16', forbidden: ['<'], links: true },
  tags: { most: 2, mostWithCommas: 20, longest: undefined },
  chapters: { way: 'description', rules: { firstAtZero: true, fewest: 3, shortest: 10 } },
  picture: { shape: { width: 16, height: 9 }, narrowest: 1280, largest: 1000, types: ['image/png'] },
  privacies: { everyone: 'All', private: 'Me' },
  opensItself: false,
  declares: undefined,
  captions: false,
};

const FACTS: CutFacts = {
  container: 'mp4',
  duration: fraction(50),
  size: 900,
  bitRate: 1,
  video: { codec: 'h264', profile: '', width: 1280, height: 720, rate: fraction(25), pixelFormat: '', bitRate: 1 },
  audio: undefined,
};

const READY: ReadinessInput = {
  words: { title: 'Keel', description: 'Text', tags: ['a'], privacy: 'private', declarations: PLAIN_DECLARATIONS },
  own: {},
  privacy: 'private',
  chapters: [],
  facts: FACTS,
  cutRefused: undefined,
  picture: undefined,
};

const chapter = (seconds: number, title: string) => ({
  markerId: 'm',
  time: fraction(seconds),
  title,
  repair: undefined,
});

describe('readiness', () => {
  it('is there where nothing is missing', () => {
    expect(missingFor(READY, SITE)).toEqual([]);
  });

  it('names each thing that is missing with its place', () => {
    const missing = missingFor(
      {
        words: { ...READY.words, title: 'A title far too long', description: '<b>', tags: ['a', 'b', 'c'] },
        own: {},
        privacy: 'link',
        chapters: [chapter(0, 'A'), chapter(45, 'B')],
        facts: { ...FACTS, container: 'mkv', size: 2000, duration: fraction(70) },
        cutRefused: undefined,
        picture: { width: 640, height: 480, size: 2000, type: 'image/gif' },
      },
      SITE,
    );
    const places = missing.map((each) => each.place);
    expect(places.filter((place) => place === 'cut')).toHaveLength(3);
    expect(places.filter((place) => place === 'picture')).toHaveLength(4);
    for (const place of ['chapters', 'title', 'description', 'tags', 'privacy']) expect(places).toContain(place);
  });

  it('wants a title, and says what is wrong with a refused cut', () => {
    const missing = missingFor({ ...READY, cutRefused: 'It breaks off', words: { ...READY.words, title: ' ' } }, SITE);
    expect(missing.map((each) => each.what)).toEqual(['It breaks off', 'The title is empty']);
  });
});

describe('words for a site', () => {
  it('carry the chapters below the description where the site takes them so', () => {
    const chapters = [chapter(0, 'A'), chapter(15, 'B'), chapter(30, 'C')];
    const words = wordsForSite(READY.words, {}, chapters, fraction(50), SITE);
    expect(words.text).toBe('Text\n\n0:00 A\n0:15 B\n0:30 C');
    expect(wordsForSite(READY.words, {}, chapters, fraction(50), { ...SITE, chapters: undefined }).text).toBe('Text');
  });
});

describe('proofing', () => {
  const meant = {
    title: 'Keel',
    text: 'Text',
    tags: ['a', 'b'],
    chapters: undefined,
    privacy: 'private' as const,
    groups: ['two', 'one'],
    pictureDigest: undefined,
    fileDigest: 'd1',
  };

  it('finds nothing where the site shows what was meant, whatever the order of playlists', () => {
    expect(differences(meant, { ...meant, groups: ['one', 'two'], pictureDigest: 'theirs' })).toEqual([]);
    expect(fieldsMeant(meant)).toBe(6);
  });

  it('names each field that differs', () => {
    const shown = { ...meant, title: 'Keal', tags: ['a'], fileDigest: 'd2', text: undefined };
    expect(differences(meant, shown).map((each) => each.field)).toEqual(['title', 'description', 'tags', 'file']);
  });
});
