import type { RightsAsk } from '@/core/drop';
import { askWords, type RightsMatch } from '@/core/rights';
import { type Fraction, floor, fraction, toNumber, viewerTime } from '@/core/time';
import { type Database, transaction } from '@/store/database';
import { addDropEvent, type Drop } from '@/store/drops';
import { announce } from '@/store/feed';
import { keepMatches } from '@/store/rights-matches';

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
      return `${owner} has let the match with “${work}” go`;
    case 'upheld':
      return `${owner} stays with the match with “${work}”: ${dispute?.answer ?? 'no reason was given'}`;
    case 'open':
      return `The match with “${work}” is open again`;
  }
}

/**
 * Keeps what a site says of the rights matches in a drop, with its steps in the history.
 * @returns the matches that are new
 */
export async function hearOfMatches(
  drop: Pick<Drop, 'id' | 'videoId' | 'siteVideoId'>,
  matches: readonly RightsMatch[] | undefined,
): Promise<RightsMatch[]> {
  const { siteVideoId } = drop;
  if (!matches || !siteVideoId) return [];
  return transaction(async (trx: Database) => {
    const { found, moved } = await keepMatches(trx, { id: drop.id, siteVideoId }, matches);
    for (const match of found) {
      const span = `${stamp(match.from)}–${stamp(match.to)}`;
      await addDropEvent(
        trx,
        drop.id,
        'match',
        `Rights match ${span}, “${match.work}”: ${match.owner} ${askWords(match)}`,
      );
    }
    for (const match of moved) await addDropEvent(trx, drop.id, 'match', movedWords(match));
    if (found.length + moved.length > 0) await announce(trx, 'video', drop.videoId);
    return found;
  });
}
