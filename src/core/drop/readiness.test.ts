import { describe, expect, it } from 'vitest';
import type { Chapter } from '../chapters';
import { PLAIN_DECLARATIONS } from '../declarations';
import type { CutFacts, SiteRules } from '../delivery';
import { fraction } from '../time';
import { PLAIN_TEMPLATE, PLAIN_TITLE } from '../words';
import { missingFor, type ReadinessInput } from './readiness';
import { type RecordWords, wordsForSite } from './words-for-site';

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
  text: { most: 50, unit: 'utf16', links: false },
  fold: undefined,
  tags: { most: 2, longest: undefined },
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

const RECORD: RecordWords = {
  title: 'Keel',
  summary: 'Text',
  titlePattern: PLAIN_TITLE,
  template: PLAIN_TEMPLATE,
  tags: ['a'],
  links: [],
  declarations: PLAIN_DECLARATIONS,
  names: { channel: 'Quay', series: '', episode: '', date: '', shelf: {} },
};

const fitted = (record: Partial<RecordWords> = {}, own = {}, chapters: Chapter[] = []) =>
  wordsForSite({ ...RECORD, ...record }, own, chapters, fraction(50), SITE);

const READY: ReadinessInput = {
  fitted: fitted(),
  declarations: PLAIN_DECLARATIONS,
  privacy: 'private',
  facts: FACTS,
  cutRefused: undefined,
  fileRefused: undefined,
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
        fitted: fitted({ summary: 'See www.a.example' }, { title: 'A title far too long' }, [
          chapter(0, 'A'),
          chapter(45, 'B'),
        ]),
        declarations: PLAIN_DECLARATIONS,
        privacy: 'link',
        facts: { ...FACTS, duration: fraction(70) },
        cutRefused: undefined,
        fileRefused: 'The video lasts 70 s; Testfold takes 60 s',
        picture: { width: 640, height: 480, size: 2000, type: 'image/gif' },
      },
      SITE,
    );
    const places = missing.map((each) => each.place);
    expect(places.filter((place) => place === 'cut')).toHaveLength(1);
    expect(places.filter((place) => place === 'picture')).toHaveLength(4);
    for (const place of ['chapters', 'title', 'summary', 'privacy']) expect(places).toContain(place);
  });

  it('wants a title, and says what is wrong with a refused cut', () => {
    const missing = missingFor({ ...READY, cutRefused: 'It breaks off', fitted: fitted({ title: ' ' }) }, SITE);
    expect(missing.map((each) => each.what)).toEqual(['It breaks off', 'The title is empty']);
  });
});

describe('what a release needs', () => {
  const opening = (more: Partial<ReadinessInput>, site = SITE) => missingFor({ ...READY, ...more }, site);

  it.each(['at a time', 'first showing'] as const)('%s wants its time', (waitsFor) => {
    expect(opening({ waitsFor })).toEqual([{ place: 'privacy', what: 'Say at what time it opens' }]);
    expect(opening({ waitsFor, opensAt: { wall: '2026-11-28T18:30:00', zone: 'UTC' } })).toEqual([]);
  });

  it.each(['on my word', 'together'] as const)('%s wants none', (waitsFor) => {
    expect(opening({ waitsFor })).toEqual([]);
  });

  it('can wait for nothing where a site opens by itself, and says for what it cannot', () => {
    const itself = { ...SITE, opensItself: true };
    const what = (waitsFor: ReadinessInput['waitsFor']) => opening({ waitsFor }, itself).map((each) => each.what);
    expect(what('on my word')).toEqual(['Testfold opens it as soon as it is approved, and cannot wait for you']);
    expect(what('together')).toEqual(['Testfold opens it as soon as it is approved, and cannot wait for the others']);
    // One sentence is enough: a time would not help.
    expect(what('at a time')).toEqual(['Testfold opens it as soon as it is approved, and cannot wait for a time']);
  });

  it('with a password wants one, and where it is not offered says what is', () => {
    const withPasswords = { ...SITE, privacies: { ...SITE.privacies, password: 'Gate' } };
    expect(opening({ privacy: 'password', password: '' }, withPasswords)).toEqual([
      { place: 'privacy', what: 'Say the password' },
    ]);
    expect(opening({ privacy: 'password', password: 'oakum' }, withPasswords)).toEqual([]);
    expect(opening({ privacy: 'link' })).toEqual([
      {
        place: 'privacy',
        what: 'Testfold has nothing that is for people with the link; choose for this channel: All, Me',
      },
    ]);
  });
});

describe('words for a site', () => {
  it('carry the chapters below the description where the site takes them so', () => {
    const chapters = [chapter(0, 'A'), chapter(15, 'B'), chapter(30, 'C')];
    const { words } = fitted({}, {}, chapters);
    expect(words.text).toBe('Text\n\n0:00 A\n0:15 B\n0:30 C');
    const without = wordsForSite(RECORD, {}, chapters, fraction(50), { ...SITE, chapters: undefined });
    expect(without.words.text).toBe('Text');
  });
});
