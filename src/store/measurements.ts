import type { CutMeasures } from '@/core/delivery';
import { type Claim, ClaimLost, claimed } from './claims';
import { type Database, fromJson, toJson } from './database';
import { newId } from './ids';

export type MeasureState = 'waiting' | 'ready' | 'failed';

/** What is known of a cut's sound and shots so far. */
export interface Measurement {
  state: MeasureState;
  found: CutMeasures | undefined;
}

/** Asks for a cut to be measured; asked again, nothing happens. */
export async function askForMeasures(db: Database, cutId: string): Promise<void> {
  await db('measurements')
    .insert({ id: newId(), cutId, state: 'waiting', nextTryAt: new Date() })
    .onConflict('cutId')
    .ignore();
}

/** The cut that a claimed measurement is of. */
export async function cutToMeasure(db: Database, measurementId: string): Promise<string | undefined> {
  const row = await db('measurements').where({ id: measurementId }).first('cutId');
  return row?.cutId;
}

export async function measurementOf(db: Database, cutId: string): Promise<Measurement | undefined> {
  const row = await db('measurements').where({ cutId }).first('state', 'found');
  return row && { state: row.state, found: fromJson<CutMeasures>(row.found) };
}

/** Ends a measurement: with what was found, or with why it could not be measured. @throws ClaimLost */
export async function endMeasuring(
  db: Database,
  claim: Claim,
  ended: { found: CutMeasures } | { trouble: string },
): Promise<void> {
  const fields =
    'found' in ended
      ? { state: 'ready', found: toJson(ended.found) }
      : { state: 'failed', trouble: ended.trouble.slice(0, 500) };
  if ((await claimed(db, claim).update({ ...fields, leaseOwner: null, leaseUntil: null })) === 0) {
    throw new ClaimLost(`measurement ${claim.id}`);
  }
}
