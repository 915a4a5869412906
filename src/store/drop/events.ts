import type { Actor } from '@/core/actor';
import { actorOf, type ByRow, byNow } from '@/store/actor';
import { inSeconds, now } from '@/store/clock';
import type { Database } from '@/store/database';
import { deleteInSteps } from '@/store/in-steps';

/** One step in a drop's history; these are only ever added. */
export interface DropEvent {
  id: number;
  dropId: string;
  at: Date;
  kind: string;
  says: string;
  by: Actor;
}

/** The history of drops, oldest first. */
export async function eventsOf(db: Database, dropIds: readonly string[]): Promise<DropEvent[]> {
  const rows: (Omit<DropEvent, 'by'> & ByRow)[] = await db('dropEvents')
    .select('id', 'dropId', 'at', 'kind', 'says', 'actor', 'via')
    .whereIn('dropId', [...dropIds])
    .orderBy('id');
  return rows.map(({ actor, via, ...row }) => ({ ...row, by: actorOf({ actor, via }) }));
}

/** Adds a step to a drop's history. */
export async function addDropEvent(db: Database, dropId: string, kind: string, says: string): Promise<void> {
  await db('dropEvents').insert({ dropId, at: now(db), kind, says: says.slice(0, 2000), ...byNow() });
}

const WAITS_KEPT_SECONDS = 30 * 24 * 3600;

/** Forgets that drops once waited for their site; where they stood and what was done stays. */
export async function forgetOldWaits(db: Database): Promise<void> {
  await deleteInSteps(() =>
    db('dropEvents').where({ kind: 'waits' }).where('at', '<', inSeconds(db, -WAITS_KEPT_SECONDS)),
  );
}
