import { now } from '@/store/clock';
import type { Database } from '@/store/database';

/**
 * Has a worker look again when the drops of a video open that are held. One that has a drop in hand loses it, so that nothing
 * opens by what it has read before.
 * @param but the drop that need not be looked at
 */
export async function lookAtHeldAgain(db: Database, videoId: string, but?: string): Promise<void> {
  const query = db('drops').where({ videoId, state: 'held' });
  if (but) query.whereNot({ id: but });
  await query.update({ nextTryAt: now(db), leaseOwner: null, leaseUntil: null });
}

/** The same for all that are held on channels of an account whose permission has ended. */
export async function lookAtHeldOfAccount(db: Database, accountId: string): Promise<void> {
  await db('drops')
    .where({ state: 'held' })
    .whereIn('channelId', db('channels').where({ accountId }).select('id'))
    .update({ nextTryAt: now(db), leaseOwner: null, leaseUntil: null });
}
