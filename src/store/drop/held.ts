import { inSeconds, now } from '@/store/clock';
import type { Database } from '@/store/database';
import { columns, fromRow, type Row } from './rows';
import type { Drop } from './shape';

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

/** What is in hand so soon need not be looked at before. */
const SOON_SECONDS = 5;

/** Drops of a channel that are held at their site and in nobody's hands, so many at a time. */
export async function* heldToWatch(db: Database, channelId: string, atOnce: number): AsyncGenerator<Drop[]> {
  for (let after = ''; ; ) {
    const rows: Row[] = await db('drops')
      .select(columns)
      .where({ channelId, state: 'held' })
      .whereNotNull('siteVideoId')
      .where((query) => query.whereNull('leaseUntil').orWhere('leaseUntil', '<', now(db)))
      .where('nextTryAt', '>', inSeconds(db, SOON_SECONDS))
      .where('id', '>', after)
      .orderBy('id')
      .limit(atOnce);
    const drops = rows.map(fromRow);
    if (drops.length > 0) yield drops;
    const last = drops.at(-1);
    if (!last || drops.length < atOnce) return;
    after = last.id;
  }
}

/** Has a worker look at drops at once that are held; one that is in hand is looked at anyway. */
export async function lookAtHeldNow(db: Database, ids: readonly string[]): Promise<void> {
  if (ids.length === 0) return;
  await db('drops')
    .where({ state: 'held' })
    .whereIn('id', [...ids])
    .where((query) => query.whereNull('leaseUntil').orWhere('leaseUntil', '<', now(db)))
    .update({ nextTryAt: now(db) });
}

/** A video that is held on a channel, with when it is to open where that is set. */
export interface HeldThere {
  title: string;
  channel: string;
  opensAt: Date | null;
}

/** Videos that are held on the channels of an account, those that open first at the top, and how many there are. */
export async function heldOfAccount(
  db: Database,
  accountId: string,
  most: number,
): Promise<{ held: HeldThere[]; count: number }> {
  const all = () =>
    db('drops')
      .join('channels', 'channels.id', 'drops.channelId')
      .where({ 'drops.state': 'held', 'channels.accountId': accountId });
  const held: HeldThere[] = await all()
    .join('videos', 'videos.id', 'drops.videoId')
    .orderByRaw('drops.opens_at IS NULL, drops.opens_at, drops.id')
    .limit(most)
    .select('videos.title as title', 'channels.name as channel', 'drops.opensAt as opensAt');
  const [row] = await all().count({ count: '*' });
  return { held, count: Number(row?.count ?? 0) };
}
