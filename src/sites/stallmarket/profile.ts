import type { SiteProfile } from '../contract';

/** Stallmarket: a shop with video. A clip is reviewed by people, and shown by the site itself once it is approved. */
export const stallmarketProfile: SiteProfile = {
  id: 'stallmarket',
  name: 'Stallmarket',
  kind: 'shop with video',
  file: {
    containers: ['mp4', 'mov'],
    videoCodecs: ['h264'],
    largest: 4_000_000_000,
    longest: undefined,
    mostPixels: { width: 1920, height: 1080 },
    mostBits: 8,
  },
  title: { most: 75, unit: 'utf8' },
  text: { most: 900, unit: 'utf8', links: false },
  fold: { lines: 2, most: 120, unit: 'utf8' },
  tags: undefined,
  chapters: undefined,
  picture: { shape: { width: 16, height: 9 }, narrowest: 800, largest: 2_000_000, types: ['image/jpeg', 'image/png'] },
  privacies: { everyone: 'Shown once approved' },
  opensItself: true,
  declares: { groups: [{ name: 'What it shows', fields: ['products'] }], products: { fewest: 1, most: 8 } },
  captions: false,
  abilities: { groups: undefined, resumes: false, review: true, reviewHours: { least: 12, most: 72 }, removes: true },
  scopes: {
    'stall.read': 'see its stall and catalogue',
    'clips.manage': 'put clips in the stall, hand them in for review, and take them out',
  },
};
