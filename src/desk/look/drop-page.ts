import type { ReviewExpected, Stop } from '@/core/drop';
import type { ChangedField, ShownDifference } from '@/core/parts';
import type { MatchState, RightsMatch } from '@/core/rights';
import type { Fraction } from '@/core/time';
import type { LineSpeed } from '@/store/drops';
import type { SheetChannel } from './views';

/** A rights match as the page of a drop shows it; times are ISO 8601 in UTC. */
export interface MatchView extends Pick<RightsMatch, 'id' | 'owner' | 'work' | 'asks' | 'countries'> {
  state: MatchState;
  /** The span in the file that is at the site, and in the cut. */
  span: { from: Fraction; to: Fraction };
  inCut: { from: Fraction; to: Fraction };
  /** What it means while it stands, a sentence each. */
  means: string[];
  asksWords: string;
  dispute: { text: string; answerBy: string | undefined; answer: string | undefined } | undefined;
  foundAt: string;
  mayAgree: boolean;
  mayDispute: boolean;
  /** Whether it waits for a person. */
  open: boolean;
  /** Whether it was found in the file that is there now. */
  current: boolean;
}

export interface ReviewView {
  id: number;
  handedInAt: string;
  endedAt: string | undefined;
  approved: boolean | undefined;
  reason: string | undefined;
  remedy: string | undefined;
  /** What was different from the time before. */
  changes: ChangedField[];
}

/** The words that the site was given at one time, by what was different from those before. */
export interface GivenView {
  id: number;
  at: string;
  changes: ChangedField[];
  /** Whether they are those that the site has now. */
  now: boolean;
}

export interface RequestView {
  id: number;
  at: string;
  method: string;
  purpose: string;
  status: number;
  milliseconds: number;
  times: number;
}

/** Everything that the page of one drop shows. */
export interface DropPageView {
  id: string;
  video: { id: string; title: string };
  channel: SheetChannel;
  stops: { stop: Stop; at: string | undefined }[];
  sentAt: string | undefined;
  speeds: LineSpeed[];
  matches: MatchView[];
  /** Exact seconds of the cut in use; undefined where it is not read. */
  length: Fraction | undefined;
  /** What the site shows otherwise: while the drop stands still for it, or once it is live. */
  differences: ShownDifference[];
  mayTakeOver: boolean;
  /** Parts that its site did not take, with why, and when they are tried again; ISO 8601 in UTC. */
  failed: { part: string; why: string; retryAt: string | undefined }[];
  /** When a live video was read last. */
  readAt: string | undefined;
  reviews: ReviewView[];
  expected: (Omit<ReviewExpected, 'from' | 'to'> & { from: string; to: string }) | undefined;
  given: GivenView[];
  requests: RequestView[];
  /** HTML that shows the video on another page, where its site has such. */
  embed: string | undefined;
}
