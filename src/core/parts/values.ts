import type { Declarations } from '../declarations';
import type { Privacy } from '../delivery';
import type { ChapterLine, Fraction } from '../time';

/** Chapters as they go to a site. */
export interface ChaptersValue {
  lines: ChapterLine[];
  /** Exact times in the file, in the order of `lines`; none where the site has no use for them. */
  times: Fraction[];
  /** Exact seconds of the file, where the last chapter ends. */
  duration?: Fraction;
}

/** Who may see a video in the end. */
export interface PrivacyValue {
  to: Privacy;
  /** Where it has one: a mark of the password, which tells it from others and from which it cannot be had. */
  passwordMark?: string;
}

/**
 * What each part of a video is where it is meant for a site or was given to it, by the part’s one name: in code, database, JSON
 * and command line. A part whose value is empty has nothing there.
 */
export interface PartValues {
  chapters: ChaptersValue;
  title: string;
  text: string;
  tags: string[];
  /** SHA-256 of the thumbnail, in hexadecimal; '' is the site’s own. */
  picture: string;
  /** The moment whose picture stands for it, in exact seconds; '' is the site’s own. */
  moment: Fraction | '';
  /** By their ids, what an id stands for never changes; `moved`: what of the cut is left out, so that they come earlier. */
  captions: { id: string; language: string; moved?: string }[];
  about: Partial<Declarations>;
  audience: Partial<Declarations>;
  permissions: Partial<Declarations>;
  money: Partial<Declarations>;
  telling: Partial<Declarations>;
  credits: Partial<Declarations>;
  products: Partial<Declarations>;
  /** Site ids. */
  playlists: string[];
  privacy: PrivacyValue;
  /** SHA-256 of the file, in hexadecimal. */
  file: string;
  /** Whether the video is at the site at all. */
  video: 'there' | 'gone';
}

export type PartName = keyof PartValues;

/** What each part is where it is read from a site. */
export interface ShownValues extends Omit<PartValues, 'chapters' | 'moment' | 'captions' | 'privacy'> {
  chapters: ChapterLine[];
  /** No site tells which moment it was. */
  moment: never;
  /** Languages. */
  captions: string[];
  privacy: Privacy;
}

/** Parts with their values as a record means them, or as a site was given them; a site does not have the others. */
export type PartsGiven = Partial<PartValues>;
/** Parts as a site shows them; undefined: it does not tell. */
export type PartsShown = { [N in PartName]?: ShownValues[N] };
