import type { SiteProfile } from '../contract';

/** Fieldgate: a portfolio host for professionals. */
export const fieldgateProfile: SiteProfile = {
  id: 'fieldgate',
  name: 'Fieldgate',
  kind: 'portfolio host for professionals',
  file: {
    containers: ['mp4', 'mov'],
    videoCodecs: ['h264', 'hevc'],
    largest: 20 * 1024 ** 3,
    longest: undefined,
    mostPixels: undefined,
  },
  title: { most: 110, unit: 'codePoint' },
  text: { most: 6000, unit: 'codePoint', links: true },
  fold: { lines: 5, most: 280, unit: 'codePoint' },
  tags: { most: 20, longest: 30 },
  chapters: { way: 'webvtt file', rules: { firstAtZero: false, fewest: 1, shortest: 0 } },
  picture: { shape: 'as the cut', narrowest: 1, largest: 8_000_000, types: ['image/jpeg', 'image/png'] },
  privacies: { everyone: 'Public', link: 'By its address', password: 'With a password', private: 'Only me' },
  printsDateIn: 'UTC',
  opensItself: false,
  declares: { groups: [{ name: 'Who made it', fields: ['credits'] }] },
  captions: true,
  abilities: {
    groups: { one: 'collection', many: 'collections' },
    resumes: true,
    review: false,
    removes: true,
    swapsFiles: true,
    embeds: true,
  },
  scopes: {
    'portfolio.read': 'see its portfolio and collections',
    'works.add': 'add works to it',
    'works.edit': 'edit, show and delete what it has added',
    'collections.edit': 'make collections and put works in them',
  },
};
