import type { SiteProfile } from '../contract';

/** Stallmarket: a shop with video. A clip is reviewed by people, and shown by the site itself once it is approved. */
export const stallmarketProfile: SiteProfile = {
  id: 'stallmarket',
  name: 'Stallmarket',
  kind: 'shop with video',
  file: {
    containers: ['mp4', 'mov'],
    videoCodecs: ['h264'],
    largest: 5_000_000_000,
    longest: undefined,
    mostPixels: { width: 1920, height: 1080 },
  },
  title: { most: 75, unit: 'utf8' },
  text: { most: 900, unit: 'utf8', forbidden: [], links: false },
  fold: { lines: 2, most: 120, unit: 'utf8' },
  tags: undefined,
  chapters: undefined,
  picture: { shape: { width: 16, height: 9 }, narrowest: 1, largest: 4_999_999, types: ['image/jpeg', 'image/png'] },
  privacies: { everyone: 'Shown once approved' },
  opensItself: true,
  declares: { fields: ['products'], products: { fewest: 1, most: 10 } },
  captions: false,
  abilities: { groups: undefined, resumes: false, review: true, removes: true },
  scopes: {
    'stall.read': 'see its stall and catalogue',
    'clips.manage': 'put clips in the stall, hand them in for review, and take them out',
  },
};
