import { type PartsAtSite, partsToGive } from '@/core/parts';
import { type Database, transaction } from '@/store/database';
import { dropById, setDrop } from '@/store/drop/drops';
import { addDropEvent } from '@/store/drop/events';
import type { Drop, SentWith } from '@/store/drop/shape';
import { announce } from '@/store/feed';
import { askForJobsAnew } from '@/store/queue/jobs';
import { changedMeanwhile } from './make-move';
import type { MeantWords } from './meant';

/**
 * Whether what has changed of a drop can be given while it stays live: all but who sees it, which moves the drop so that it is
 * seen to before anything else.
 */
export const staysLive = (
  drop: Pick<Drop, 'state' | 'former'>,
  there: PartsAtSite,
  { parts }: Pick<MeantWords, 'parts'>,
): boolean => drop.state === 'live' && !drop.former && !partsToGive(there, parts).includes('privacy');

/**
 * Has a live drop given what has changed of it.
 * @param beside what is changed along with it
 * @throws DeskError where it is no longer live
 */
export async function giveLive(
  drop: Pick<Drop, 'id' | 'videoId'>,
  says: string,
  sentWith?: SentWith,
  beside: (trx: Database) => Promise<void> = async () => {},
): Promise<void> {
  await transaction(async (trx) => {
    const now = await dropById(trx, drop.id, true);
    if (now?.state !== 'live') throw changedMeanwhile();
    await beside(trx);
    if (sentWith) await setDrop(trx, drop.id, { sentWith });
    await addDropEvent(trx, drop.id, 'revise', says);
    await askForJobsAnew(trx, 'give', [drop.id]);
    await announce(trx, 'video', drop.videoId);
  });
}
