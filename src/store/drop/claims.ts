import type { CarriedState } from '@/core/drop';
import { inSeconds, now } from '@/store/clock';
import type { Database } from '@/store/database';
import { type Claim, ClaimLost, claimed, claimRows, dueRows } from '@/store/queue/claims';
import { type RestingChannel, takeTrial } from '@/store/site/circuits';
import { columns, type DropFields, fromRow, type Row, toRow } from './rows';
import type { Drop } from './shape';

/** Lets a drop rest for so many seconds. @throws ClaimLost */
export async function postponeDrop(db: Database, claim: Claim, seconds: number, fields: DropFields): Promise<void> {
  const row = { ...toRow(db, fields), nextTryAt: inSeconds(db, seconds), leaseOwner: null, leaseUntil: null };
  if ((await claimed(db, claim).update(row)) === 0) throw new ClaimLost(`drop ${claim.id}`);
}

/** Lets a drop rest of which nothing could be read, and counts the try. */
export async function postponeUnreadDrop(db: Database, claim: Claim, seconds: number): Promise<void> {
  const row = { nextTryAt: inSeconds(db, seconds), leaseOwner: null, leaseUntil: null };
  await claimed(db, claim).update(row).increment('attempts', 1);
}

/**
 * Live drops of a channel that are to be read again: not read as a whole since they opened, or not for so long.
 * @param seconds between two readings
 * @param but drops that are left for now
 */
export async function liveToRead(
  db: Database,
  channelId: string,
  seconds: number,
  most: number,
  but: readonly string[] = [],
): Promise<Drop[]> {
  const rows: Row[] = await db('drops')
    .select(columns)
    .where({ channelId, state: 'live' })
    .whereNotIn('id', [...but])
    .whereNotNull('siteVideoId')
    .where((query) => query.whereNull('readAt').orWhere('readAt', '<=', inSeconds(db, -seconds)))
    .orderBy('readAt')
    .limit(most);
  return rows.map(fromRow);
}

/** The live videos of a channel: how many, how many of them were not read since they opened, and since when all others were. */
export interface LiveRound {
  live: number;
  unread: number;
  readSince: Date | undefined;
}

/** How far the reading of live videos is, by channel. */
export async function liveRounds(db: Database): Promise<Map<string, LiveRound>> {
  const rows: { channelId: string; live: number; wereRead: number; readSince: Date | null }[] = await db('drops')
    .where({ state: 'live' })
    .groupBy('channelId')
    .select('channelId')
    .count({ live: '*', wereRead: 'readAt' })
    .min({ readSince: 'readAt' });
  return new Map(
    rows.map(({ channelId, live, wereRead, readSince }) => [
      channelId,
      { live: Number(live), unread: Number(live) - Number(wereRead), readSince: readSince ?? undefined },
    ]),
  );
}

/** How often a drop was tried in vain. */
export async function triesOfDrop(db: Database, id: string): Promise<number> {
  const row: { attempts: number } | undefined = await db('drops').where({ id }).first('attempts');
  return row?.attempts ?? 0;
}

/** Makes drops due at once that wait for their video's file, for that has just been read. */
export async function hastenPacking(db: Database, videoId: string): Promise<void> {
  await db('drops')
    .where({ videoId, state: 'packing' })
    .whereNull('leaseOwner')
    .update({ nextTryAt: now(db) });
}

/** Makes drops of channels due at once that their site has put off. */
export async function hastenPutOff(db: Database, channelIds: readonly string[]): Promise<void> {
  await db('drops')
    .whereIn('channelId', [...channelIds])
    .whereNotNull('putOffBy')
    .whereNull('leaseOwner')
    .update({ nextTryAt: now(db) });
}

/** What a claim on a drop is chosen by. */
export interface DropChoice {
  states: readonly CarriedState[];
  most: number;
  /** Channels of sites that rest: none of their drops is taken, or one where the rest is over. */
  resting: readonly RestingChannel[];
  /** Whether the first try of a drop is made also at a site that rests: a person waits for it. */
  firstTryAlways: boolean;
  /** How many drops of one channel may be in these states' hands at a time, all workers taken together. */
  mostOfChannel?: number;
}

/** Claims drops that are due, those first that have waited longest. */
export async function claimDrops(worker: string, leaseSeconds: number, choice: DropChoice): Promise<Claim[]> {
  const { states, most, resting, firstTryAlways, mostOfChannel } = choice;
  return claimRows(
    'drops',
    async (db) => {
      const query = dueRows(db, 'drops', states);
      const closed = resting.filter(({ over }) => !over).map(({ channelId }) => channelId);
      if (closed.length > 0) {
        query.where((allowed) => {
          // Packing asks the site nothing.
          allowed.whereNotIn('channelId', closed).orWhere({ state: 'packing' });
          if (firstTryAlways) allowed.orWhere({ attempts: 0 });
        });
      }
      const full = mostOfChannel === undefined ? new Map<string, number>() : await inHandByChannel(db, states);
      if (mostOfChannel !== undefined) {
        query.whereNotIn(
          'channelId',
          [...full].filter(([, count]) => count >= mostOfChannel).map(([channelId]) => channelId),
        );
      }
      const rows: { id: string; state: string; channelId: string }[] = await query
        .select('id', 'state', 'channelId')
        .orderBy('nextTryAt')
        .limit(most * 4);
      const chosen: typeof rows = [];
      for (const row of rows) {
        const count = (full.get(row.channelId) ?? 0) + 1;
        if (chosen.length === most || count > (mostOfChannel ?? Number.POSITIVE_INFINITY)) continue;
        const trial = resting.find(({ channelId, over }) => over && channelId === row.channelId);
        if (trial && row.state !== 'packing' && !(await takeTrial(db, trial.site))) continue;
        full.set(row.channelId, count);
        chosen.push(row);
      }
      return chosen;
    },
    worker,
    leaseSeconds,
  );
}

async function inHandByChannel(db: Database, states: readonly string[]): Promise<Map<string, number>> {
  const rows: { channelId: string; count: number }[] = await db('drops')
    .whereIn('state', [...states])
    .where('leaseUntil', '>', now(db))
    .groupBy('channelId')
    .select('channelId')
    .count({ count: '*' });
  return new Map(rows.map(({ channelId, count }) => [channelId, Number(count)]));
}
