import type { Database } from './database';

/** Notes that a worker is alive. */
export async function beatWorker(db: Database, id: string, startedAt: Date): Promise<void> {
  await db('workers').insert({ id, startedAt, beatAt: new Date() }).onConflict('id').merge(['beatAt']);
  await db('workers')
    .where('beatAt', '<', new Date(Date.now() - 24 * 3600 * 1000))
    .delete();
}

/** When any worker was last alive. */
export async function lastWorkerBeat(db: Database): Promise<Date | undefined> {
  const row = await db('workers').max<{ beat: Date | null }>({ beat: 'beatAt' }).first();
  return row?.beat ?? undefined;
}
