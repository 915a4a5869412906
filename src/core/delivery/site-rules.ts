import type { ChapterRules } from '../chapters';
import type { DeclarationRules } from '../declarations';
import type { LinkRules, TagRules, TextLimit, TextUnit } from '../words';

/** Who may see a video: everyone, only people with the link, or only its owner. */
export const PRIVACIES = ['everyone', 'link', 'password', 'private'] as const;
export type Privacy = (typeof PRIVACIES)[number];

/** What files a site takes; sizes in bytes, `longest` in seconds. */
export interface FileRules {
  containers: readonly string[];
  videoCodecs: readonly string[];
  largest: number;
  longest: number | undefined;
  /** Pixels, width by height, where the site sets a bound. */
  mostPixels: { width: number; height: number } | undefined;
  /** Bits of one sample of the picture, where the site sets a bound. */
  mostBits?: number;
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

/** What a site shows of a text before it folds the rest away: so many lines, or signs by its count, whichever ends first. */
export interface Fold {
  lines: number;
  most: number;
  unit: TextUnit;
}

/** Of the date under a video: that of whoever looks. */
export const THE_READERS = 'the reader’s';

/** What a site takes, as data: the same figures serve the Sheet, the route handlers and the command line. */
export interface SiteRules {
  name: string;
  file: FileRules;
  title: TextLimit | undefined;
  /** Where the site has no title, the text begins with it. */
  text: (TextLimit & LinkRules) | undefined;
  /** Where the site folds long texts. */
  fold: Fold | undefined;
  /** A list beside the text, or # words at its end, as many as there is room for. */
  tags: TagRules | 'words in the text' | undefined;
  chapters: ChapterWay | undefined;
  /** An own picture, or a moment of the video. */
  picture: PictureRules | 'a moment' | undefined;
  /** Who may see it there, each in the site's own words. */
  privacies: Partial<Record<Privacy, string>>;
  /** The IANA zone whose date the site prints under a video, or THE_READERS, where it prints one. */
  printsDateIn?: string;
  /** Whether the site opens a video by itself at a time that it was given. */
  keepsTime?: boolean;
  /** Whether a video may be shown first to all who come at a set time, each seeing the same moment. */
  firstShowings?: boolean;
  /** Whether the site opens a video by itself once its checks are passed. */
  opensItself: boolean;
  declares: DeclarationRules | undefined;
  captions: boolean;
}

/** Whether nobody can see a file there that goes up before its words: the site keeps it closed until it is told otherwise. */
export const goesUpClosed = ({ privacies, opensItself }: Pick<SiteRules, 'privacies' | 'opensItself'>): boolean =>
  !opensItself && 'private' in privacies;
