import { momentInCut } from '@/core/renditions';
import {
  askWords,
  type MatchState,
  matchMeans,
  mayAgree,
  mayDispute,
  needsPerson,
  type RightsMatch,
} from '@/core/rights';
import type { Fraction } from '@/core/time';
import type { KeptMatch } from '@/store/drop/rights-matches';
import type { Drop } from '@/store/drop/shape';
import type { VideoRecord } from '../drop/record';
import { remediesAt } from '../layers/layers';

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

/** A rights match as pages show it, with its span in the cut in use. */
export function matchView(match: KeptMatch, drop: Drop, { video, cut }: VideoRecord): MatchView {
  const { id, owner, work, asks, countries, state, from, to, dispute, foundAt } = match;
  const current = match.siteVideoId === drop.siteVideoId;
  const sent = remediesAt(video, drop, cut?.id);
  const inCut = (time: KeptMatch['from']) => (cut?.facts && current ? momentInCut(time, sent, cut.facts) : time);
  return {
    ...{ id, owner, work, asks, countries, state, current },
    span: { from, to },
    inCut: { from: inCut(from), to: inCut(to) },
    means: matchMeans(match),
    asksWords: askWords(match),
    dispute: dispute && { ...dispute, answerBy: dispute.answerBy?.toISOString() },
    foundAt: foundAt.toISOString(),
    mayAgree: current && mayAgree(match),
    mayDispute: current && mayDispute(match),
    open: current && needsPerson(match),
  };
}
