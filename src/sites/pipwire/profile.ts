import { THE_READERS } from '@/core/delivery';
import type { SiteProfile } from '../contract';

/** Pipwire: short posts. A post is a draft until it is put out, and then open at once. */
export const pipwireProfile: SiteProfile = {
  id: 'pipwire',
  name: 'Pipwire',
  kind: 'short posts',
  file: {
    containers: ['mp4'],
    videoCodecs: ['h264'],
    largest: 256 * 1024 ** 2,
    longest: 120,
    mostPixels: undefined,
  },
  title: undefined,
  text: { most: 240, unit: 'grapheme', links: true },
  fold: undefined,
  tags: 'words in the text',
  chapters: undefined,
  picture: 'a moment',
  privacies: { everyone: 'Out at once', private: 'A draft until you put it out' },
  printsDateIn: THE_READERS,
  opensItself: false,
  declares: undefined,
  captions: false,
  abilities: { groups: undefined, resumes: true, review: false, removes: true },
  scopes: {
    'wire.read': 'see its wire',
    'posts.write': 'draft posts, put them out, and take back what it has put out',
  },
};
