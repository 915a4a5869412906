import { momentInCut } from '@/core/renditions';
import { askWords, matchMeans, mayAgree, mayDispute, needsPerson } from '@/core/rights';
import type { Drop } from '@/store/drops';
import type { KeptMatch } from '@/store/rights-matches';
import type { VideoRecord } from '../drop/record';
import { remediesAt } from '../layers/layers';
import type { MatchView } from './drop-page';

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
