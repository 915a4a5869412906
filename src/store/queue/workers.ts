import { inSeconds, now } from '@/store/clock';
import type { Database } from '@/store/database';

const KEPT_SECONDS = 24 * 3600;

/** Notes that a worker is alive. @param hardware codecs that the graphics hardware of its machine encodes */
export async function beatWorker(db: Database, id: string, hardware: readonly string[] = []): Promise<void> {
  await db('workers')
    .insert({ id, startedAt: now(db), beatAt: now(db), hardware: hardware.join(',') })
    .onConflict('id')
    .merge(['beatAt', 'hardware']);
  await db('workers').where('beatAt', '<', inSeconds(db, -KEPT_SECONDS)).delete();
}

/** How many seconds ago any worker was last alive; undefined where none ever was. */
export async function secondsSinceWorkerBeat(db: Database): Promise<number | undefined> {
  const row: { age: number | null } | undefined = await db('workers')
    .select({ age: db.raw('TIMESTAMPDIFF(SECOND, MAX(??), UTC_TIMESTAMP(3))', ['beatAt']) })
    .first();
  return row?.age ?? undefined;
}

/** Codecs that the graphics hardware of some worker's machine encodes. */
export async function codecsOfHardware(db: Database): Promise<string[]> {
  const rows: { hardware: string }[] = await db('workers').whereNot('hardware', '').distinct('hardware');
  return [...new Set(rows.flatMap(({ hardware }) => hardware.split(',')))];
}
