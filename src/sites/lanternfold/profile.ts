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
  title: { most: 90, unit: 'utf16' },
  text: { most: 4000, unit: 'utf16', forbidden: ['<', '>'], links: true },
  fold: { lines: 3, most: 160, unit: 'utf16' },
  tags: { most: 30, mostWithCommas: 400, longest: undefined },
  chapters: { way: 'description', rules: { firstAtZero: true, fewest: 3, shortest: 10 } },
  picture: {
    shape: { width: 16, height: 9 },
    narrowest: 1280,
    largest: 3_000_000,
    types: ['image/jpeg', 'image/png', 'image/webp'],
  },
  privacies: { everyone: 'Everyone', link: 'By link only', private: 'Closed' },
  opensItself: false,
  declares: {
    fields: [
      ...(['category', 'language', 'licence', 'recordedOn', 'place', 'forChildren', 'adultsOnly'] as const),
      ...(['paidPlacement', 'comments', 'ratings', 'embedding', 'tellSubscribers', 'adverts'] as const),
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
  abilities: { groups: { one: 'playlist', many: 'playlists' }, resumes: true, review: false, removes: true },
  scopes: {
    'channels.read': 'see its channels and their playlists',
    'videos.send': 'send videos to them',
    'videos.change': 'change, open and remove what it has sent',
    'playlists.change': 'make playlists and put videos in them',
  },
};
