import type { ReviewExpected, Stop } from '@/core/drop';
import type { ChangedField, ShownDifference } from '@/core/parts';
import type { Fraction } from '@/core/time';
import type { LineSpeed } from '@/store/drop/shape';
import type { MatchView } from './match-view';
import type { SheetChannel } from './views';

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
