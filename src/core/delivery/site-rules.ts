import type { ChapterRules } from '../chapters';
import type { TagRules, TextLimit } from '../words';

/** Who may see a video: everyone, only people with the link, or only its owner. */
export const PRIVACIES = ['everyone', 'link', 'private'] as const;
export type Privacy = (typeof PRIVACIES)[number];

/** What files a site takes; sizes in bytes, `longest` in seconds. */
export interface FileRules {
  containers: readonly string[];
  videoCodecs: readonly string[];
  largest: number;
  longest: number | undefined;
  /** Pixels, width by height, where the site sets a bound. */
  mostPixels: { width: number; height: number } | undefined;
}

/** What pictures a site takes as a thumbnail; `largest` in bytes, `shape` as width to height. */
export interface PictureRules {
  shape: { width: number; height: number } | 'as the cut';
  narrowest: number;
  largest: number;
  types: readonly string[];
}

/** How chapters reach a site's viewers. */
export interface ChapterWay {
  way: 'description' | 'webvtt file';
  rules: ChapterRules;
}

/** What a site takes, as data: the same figures serve the Sheet, the route handlers and the command line. */
export interface SiteRules {
  name: string;
  file: FileRules;
  title: TextLimit | undefined;
  text: (TextLimit & { forbidden: readonly string[] }) | undefined;
  tags: TagRules | undefined;
  chapters: ChapterWay | undefined;
  picture: PictureRules | undefined;
  privacies: readonly Privacy[];
}
