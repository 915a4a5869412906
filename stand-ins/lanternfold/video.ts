import type { Hosted } from '../shared/hosted';

/** How Lanternfold calls who may see a video. */
export type Visibility = 'open' | 'by-link' | 'closed';

export interface Chapter {
  seconds: number;
  title: string;
}

/** What its owner says of a video beside the words. */
export interface Particulars {
  category?: string;
  language?: string;
  licence?: 'all-rights' | 'cc-by';
  recordedOn?: string;
  place?: string;
  madeForChildren?: boolean;
  adultsOnly?: boolean;
  paidPlacement?: boolean;
  comments?: 'open' | 'hold-doubtful' | 'hold-all' | 'off';
  ratings?: boolean;
  embedding?: boolean;
  tellSubscribers?: boolean;
  /** Codes of countries (ISO 3166-1 alpha-2). */
  shownIn?: { way: 'all' | 'only' | 'not'; countries: string[] };
  broadcast?: 'unsaid' | 'never' | 'captioned' | 'not-captioned';
  adverts?: 'off' | 'context' | 'interest';
}

/** Something in a video that belongs to somebody else, and what became of it; the span in seconds. */
export interface Match {
  id: string;
  owner: string;
  work: string;
  from: number;
  to: number;
  wants: 'share' | 'silence' | 'close';
  /** Where it is to be closed; everywhere where none are named. */
  countries?: string[];
  state: 'open' | 'agreed' | 'disputed' | 'withdrawn' | 'upheld';
  dispute?: { text: string; answerBy: string; answer?: string };
}

/** A video as Lanternfold keeps it. */
export interface Video extends Hosted, Particulars {
  title: string;
  description: string;
  tags: string[];
  visibility: Visibility;
  /** When it opens by itself, and to whom. */
  opensAt?: string;
  opensTo?: Visibility;
  /** Whether it opens, or has opened, with a showing that all see together. */
  firstShowing?: boolean;
  talk?: { at: string; name: string; says: string }[];
  checks: 'waiting' | 'passed' | 'matched';
  matches?: Match[];
}
