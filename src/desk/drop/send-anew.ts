import type { DropFields } from '@/store/drop/rows';
import { type Drop, linksLeft, traceOf } from '@/store/drop/shape';
import { ANEW } from './send';

/**
 * Fields of a drop that goes up once more as a new video. The one that is there is removed before. One that people have seen
 * and that the site calls gone is left alone: should the site be wrong, its views are not ours to throw away.
 */
export function sentAnewFields(drop: Drop): DropFields {
  const seen = drop.snag?.kind === 'missing' && (drop.liveAt !== undefined || drop.openedTo !== undefined);
  const leftBehind = [...(drop.leftBehind ?? []), ...(seen ? [] : traceOf(drop))];
  // A better file that is on its way still takes the place of what is live.
  const { former } = drop;
  // A file that takes the place of what is held, or would be seen by more people, opens nothing.
  const openAsked = former !== undefined && drop.openAsked;
  return { ...ANEW, leftBehind, round: drop.round + 1, former, openAsked, formerLinks: linksLeft(drop) };
}
