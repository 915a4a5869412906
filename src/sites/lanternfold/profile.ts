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
  text: { most: 4000, unit: 'utf16', forbidden: ['<', '>'] },
  tags: { most: 30, mostWithCommas: 400, longest: undefined },
  chapters: { way: 'description', rules: { firstAtZero: true, fewest: 3, shortest: 10 } },
  picture: {
    shape: { width: 16, height: 9 },
    narrowest: 1280,
    largest: 3_000_000,
    types: ['image/jpeg', 'image/png', 'image/webp'],
  },
  privacies: ['everyone', 'link', 'private'],
  abilities: { groups: { one: 'playlist', many: 'playlists' }, resumes: true, review: false, removes: true },
  scopes: ['channels.read', 'videos.send', 'videos.change', 'playlists.change'],
};
