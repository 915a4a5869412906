import type { SiteProfile } from '../contract';

/** Lanternfold: an open video site. */
export const lanternfoldProfile: SiteProfile = {
  id: 'lanternfold',
  name: 'Lanternfold',
  kind: 'open video site',
  file: {
    containers: ['mp4', 'mov', 'mkv', 'webm'],
    videoCodecs: ['h264', 'hevc', 'vp9', 'av1'],
    largest: 64 * 1024 ** 3,
    longest: undefined,
    mostPixels: undefined,
  },
  title: { most: 96, unit: 'utf16' },
  text: { most: 4200, unit: 'utf16', links: true, mostLinks: 25 },
  fold: { lines: 3, most: 160, unit: 'utf16' },
  tags: { most: 24, longest: 32 },
  chapters: { way: 'description', rules: { firstAtZero: true, fewest: 2, most: 60, shortest: 10 } },
  picture: {
    shape: { width: 16, height: 9 },
    narrowest: 1000,
    largest: 4_000_000,
    types: ['image/jpeg', 'image/png', 'image/webp'],
  },
  privacies: { everyone: 'Everyone', link: 'By link only', private: 'Closed' },
  printsDateIn: 'America/St_Johns',
  keepsTime: true,
  firstShowings: true,
  opensItself: false,
  declares: {
    groups: [
      { name: 'About it', fields: ['category', 'language', 'recordedOn', 'place'] },
      { name: 'For whom', fields: ['forChildren', 'adultsOnly', 'countries'] },
      { name: 'What may be done with it', fields: ['licence', 'embedding', 'comments', 'ratings'] },
      { name: 'Money', fields: ['adverts', 'paidPlacement'] },
      { name: 'Telling people', fields: ['tellSubscribers', 'broadcast'] },
    ],
    categories: [
      { id: 'craft', name: 'Craft and making' },
      { id: 'travel', name: 'Places and travel' },
      { id: 'learning', name: 'Learning' },
      { id: 'music', name: 'Music' },
      { id: 'news', name: 'News and reports' },
      { id: 'people', name: 'People' },
    ],
  },
  captions: true,
  abilities: {
    groups: { one: 'playlist', many: 'playlists' },
    resumes: true,
    review: false,
    removes: true,
    disputes: true,
    embeds: true,
  },
  scopes: {
    'channels.read': 'see its channels and their playlists',
    'videos.send': 'send videos to them',
    'videos.change': 'change, open and remove what it has sent',
    'playlists.change': 'make playlists and put videos in them',
  },
};
