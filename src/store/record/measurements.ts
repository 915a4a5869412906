import type { CutMeasures } from '@/core/delivery';
import { type Database, fromJson, toJson } from '@/store/database';
import { newId } from '@/store/ids';
import { askForJobs } from '@/store/queue/jobs';

export type MeasureState = 'waiting' | 'ready' | 'failed';

/** What is known of a cut's sound and shots so far. */
export interface Measurement {
  state: MeasureState;
  found: CutMeasures | undefined;
}

/** Asks for a cut to be measured; asked again, nothing happens. */
export async function askForMeasures(db: Database, cutId: string): Promise<void> {
  await db('measurements').insert({ id: newId(), cutId, state: 'waiting' }).onConflict('cutId').ignore();
  await askForJobs(db, 'measure', [cutId]);
}

export async function measurementOf(db: Database, cutId: string): Promise<Measurement | undefined> {
  const row = await db('measurements').where({ cutId }).first('state', 'found');
  return row && { state: row.state, found: fromJson<CutMeasures>(row.found) };
}

/** What was found of several cuts, by cut; those that are not measured are left out. */
export async function measurementsOf(db: Database, cutIds: readonly string[]): Promise<Map<string, CutMeasures>> {
  const rows: { cutId: string; found: string }[] = await db('measurements')
    .where({ state: 'ready' })
    .whereIn('cutId', [...cutIds])
    .select('cutId', 'found');
  return new Map(
    rows.flatMap(({ cutId, found }) => {
      const measures = fromJson<CutMeasures>(found);
      return measures ? [[cutId, measures] as const] : [];
    }),
  );
}

/** What was found of another cut with the same bytes, where one is measured. @param digest SHA-256 in hexadecimal */
export async function measuresOfSame(db: Database, digest: string): Promise<CutMeasures | undefined> {
  const row: { found: string } | undefined = await db('measurements as m')
    .join('cuts as c', 'c.id', 'm.cutId')
    .where({ 'c.digest': digest, 'm.state': 'ready' })
    .first('m.found');
  return row && fromJson<CutMeasures>(row.found);
}

/** Ends a measurement: with what was found, or with why it could not be measured. */
export async function endMeasuring(
  db: Database,
  cutId: string,
  ended: { found: CutMeasures } | { trouble: string },
): Promise<void> {
  const fields =
    'found' in ended
      ? { state: 'ready', found: toJson(ended.found), trouble: null }
      : { state: 'failed', trouble: ended.trouble.slice(0, 500) };
  await db('measurements').where({ cutId }).update(fields);
}

/** Notes that a cut is to be measured once more that could not be. Whether there is one is returned. */
export async function measureAgain(db: Database, cutId: string): Promise<boolean> {
  const failed = db('measurements').where({ cutId, state: 'failed' });
  return (await failed.update({ state: 'waiting', trouble: null })) > 0;
}
