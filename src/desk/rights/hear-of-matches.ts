import type { RightsAsk } from '@/core/drop';
import { askWords, type RightsMatch } from '@/core/rights';
import { type Fraction, floor, fraction, toNumber, viewerTime } from '@/core/time';
import type { Database } from '@/store/database';
import { dropById } from '@/store/drop/drops';
import { addDropEvent } from '@/store/drop/events';
import { keepMatches } from '@/store/drop/rights-matches';
import type { Drop } from '@/store/drop/shape';
import { announce } from '@/store/feed';

const stamp = (time: Fraction) => viewerTime(fraction(floor(time)), toNumber(time));

const AGREED: Record<RightsAsk, string> = {
  income: 'a share of what the video earns',
  silence: 'silence there',
  'closing in countries': 'that it is closed in some countries',
  closing: 'that it is closed',
};

/** What became of a match, as the history tells it. */
function movedWords(match: RightsMatch): string {
  const { owner, work, state, dispute } = match;
  switch (state) {
    case 'agreed':
      return `Agreed to what ${owner} asks for “${work}”: ${AGREED[match.asks ?? 'income']}`;
    case 'disputed':
      return `The match with “${work}” is disputed; ${owner} is to answer`;
    case 'withdrawn':
      return `The match with “${work}” has ended: ${owner} ${askWords(match)}`;
    case 'upheld':
      return `${owner} stays with the match with “${work}”: ${dispute?.answer ?? 'no reason was given'}`;
    case 'open':
      return `The match with “${work}” is open again`;
  }
}

/**
 * Keeps what a site says of the rights matches in a drop, with its steps in the history. Of two that hear of one match at once,
 * the second finds it kept.
 * @returns the matches that are new, or stand otherwise than before
 */
export async function hearOfMatches(
  trx: Database,
  drop: Pick<Drop, 'id' | 'videoId' | 'siteVideoId'>,
  matches: readonly RightsMatch[] | undefined,
): Promise<RightsMatch[]> {
  const { siteVideoId } = drop;
  if (!matches || !siteVideoId) return [];
  await dropById(trx, drop.id, true);
  const { found, moved, asked } = await keepMatches(trx, { id: drop.id, siteVideoId }, matches);
  for (const match of [...found, ...asked]) {
    const span = `${stamp(match.from)}–${stamp(match.to)}`;
    const says = `Rights match ${span}, “${match.work}”: ${match.owner} ${askWords(match)}`;
    await addDropEvent(trx, drop.id, 'match', says);
  }
  for (const match of moved) await addDropEvent(trx, drop.id, 'match', movedWords(match));
  const changed = [...found, ...moved, ...asked];
  if (changed.length > 0) await announce(trx, 'video', drop.videoId);
  return changed;
}
