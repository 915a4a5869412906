import type { LineLimit } from '@/core/line';
import { now } from '@/store/clock';
import type { Database } from '@/store/database';

/** Every limit of the line. */
export async function allLineLimits(db: Database): Promise<LineLimit[]> {
  const rows: { owner: string; kilobits: number; fromMinute: number | null; toMinute: number; zone: string }[] =
    await db('lineLimits').select('owner', 'kilobits', 'fromMinute', 'toMinute', 'zone');
  return rows.map(({ owner, kilobits, fromMinute, toMinute, zone }) => ({
    owner,
    kilobits,
    hours: fromMinute === null ? undefined : { from: fromMinute, to: toMinute, zone },
  }));
}

/** Sets the limit of a channel, or of everything; undefined takes it away. */
export async function setLineLimit(
  db: Database,
  owner: string,
  limit: Omit<LineLimit, 'owner'> | undefined,
): Promise<void> {
  await db('lineLimits').where({ owner }).delete();
  if (!limit) return;
  const { kilobits, hours } = limit;
  await db('lineLimits').insert({
    ...{ owner, kilobits, zone: hours?.zone ?? '' },
    ...{ fromMinute: hours?.from ?? null, toMinute: hours?.to ?? null },
  });
}

/** How many uploads are under way, by channel, over all workers. */
export async function uploadsUnderWay(db: Database): Promise<Map<string, number>> {
  const rows: { channelId: string; uploads: number }[] = await db('drops')
    .where({ state: 'landing' })
    .where('leaseUntil', '>', now(db))
    .groupBy('channelId')
    .select('channelId', { uploads: db.raw('COUNT(*)') });
  const early: typeof rows = await db('earlyUploads as e')
    .join('jobs as j', (on) => on.on('j.subject', 'e.id').andOnVal('j.kind', 'early'))
    .where('j.leaseUntil', '>', now(db))
    .groupBy('e.channelId')
    .select({ channelId: 'e.channelId', uploads: db.raw('COUNT(*)') });
  const all = new Map<string, number>();
  for (const { channelId, uploads } of [...rows, ...early]) {
    all.set(channelId, (all.get(channelId) ?? 0) + Number(uploads));
  }
  return all;
}
