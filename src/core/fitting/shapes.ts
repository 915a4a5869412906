import type { Chapter } from '../chapters';
import type { Fraction } from '../time';
import type { NamedLink } from '../words';
import type { TextNames } from './names';

/** What a text is made from. */
export interface FitInput {
  /** The phrase that people search for, as it was typed. */
  title: string;
  /** In Mustache, around the title; the title alone where not given. */
  titlePattern?: string;
  /** Two or three lines about this video. */
  summary: string;
  /** In Mustache; the names are those of `TEMPLATE_NAMES`. Where it is empty, the summary stands alone. */
  template: string;
  links: readonly NamedLink[];
  tags: readonly string[];
  chapters: readonly Chapter[];
  /** Exact seconds of the cut, where they are known. */
  duration: Fraction | undefined;
  names?: Partial<TextNames>;
  /** Written for this channel alone, in the place of title or text; none of it is ever cut. */
  byHand?: { title?: string; text?: string };
}

/** The places at which what keeps words from being sent is settled. */
export const FIT_PLACES = [
  ...(['title', 'summary', 'series', 'episode', 'template', 'links', 'tags', 'chapters'] as const),
  'declared-credits',
] as const;
export type FitPlace = (typeof FIT_PLACES)[number];

/** Something that keeps words from being sent. */
export interface FitFinding {
  place: FitPlace;
  what: string;
  /** A text that looks like a blank; a person may say that it is meant as it stands. */
  blank?: string;
}

/** What goes to a site, and what of it had no room; nothing is left out that is not listed. */
export interface Fitted {
  title: string;
  text: string;
  tags: string[];
  /** In words, in the order in which it went. */
  leftOut: string[];
  findings: FitFinding[];
  /** The chapters that viewers get: those of a text by hand that has some in it, none where they had no room. */
  chapters: readonly Chapter[];
}
