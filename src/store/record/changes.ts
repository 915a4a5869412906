import type { Who } from '@/core/actor';
import { actorNow, byNow } from '@/store/actor';
import { inSeconds } from '@/store/clock';
import type { Database } from '@/store/database';
import { deleteInSteps } from '@/store/in-steps';

/** A change that a person made to a video, a layer of defaults or the link shelf: the field with its value before and after, as JSON. */
export interface Change {
  id: number;
  field: string;
  before: string;
  after: string;
  /** The window that it was made in, where it was made in one. */
  madeIn: string | undefined;
}

const columns = ['id', 'field', 'before', 'after', 'madeIn'];

type Row = Omit<Change, 'madeIn'> & { madeIn: string | null };
const fromRow = (row: Row | undefined): Change | undefined => row && { ...row, madeIn: row.madeIn ?? undefined };

/** Two changes of one text field within this span are one, so that undo takes back a thought and not a letter. */
const ONE_THOUGHT_MILLISECONDS = 3000;

/**
 * Writes a change down. What had been undone can no longer be redone.
 * @param joins whether it goes on with a change of the same field made a moment before in the same window, and may be one
 *   with it
 */
export async function addChange(
  db: Database,
  subject: string,
  change: Omit<Change, 'id'>,
  joins: (last: Pick<Change, 'before' | 'after'>) => boolean,
): Promise<void> {
  await db('changes').where({ subject, state: 'undone' }).update({ state: 'dropped' });
  const at = new Date();
  const last: (Row & { at: Date; actor: Who | null }) | undefined = await db('changes')
    .where({ subject, state: 'made' })
    .orderBy('id', 'desc')
    .first([...columns, 'at', 'actor']);
  const sameHand =
    last?.field === change.field && last.madeIn === (change.madeIn ?? null) && last.actor === actorNow().who;
  if (last && sameHand && at.getTime() - last.at.getTime() < ONE_THOUGHT_MILLISECONDS && joins(last)) {
    await db('changes').where({ id: last.id }).update({ after: change.after, at });
    return;
  }
  await db('changes').insert({ subject, ...change, ...byNow(), at, state: 'made' });
}

const NOBODY: readonly Who[] = ['worker', 'inbox'];

/**
 * Changes of whoever asks. What was made by nobody’s hand, as when a file that was brought takes the place of another, anybody may
 * take back; so with what was made before anybody was written down.
 */
const own = (db: Database, subject: string, state: 'made' | 'undone') =>
  db('changes')
    .where({ subject, state })
    .where((by) => by.whereIn('actor', [actorNow().who, ...NOBODY]).orWhereNull('actor'));

/** The change that undo would take back: the last of whoever asks. */
export async function lastMade(db: Database, subject: string): Promise<Change | undefined> {
  return fromRow(await own(db, subject, 'made').orderBy('id', 'desc').first(columns));
}

/** The change that redo would make again, of whoever asks. */
export async function firstUndone(db: Database, subject: string): Promise<Change | undefined> {
  return fromRow(await own(db, subject, 'undone').orderBy('id').first(columns));
}

/** The last change that was made in a window, whoever made it, with how it stands. */
export async function changeMadeIn(
  db: Database,
  subject: string,
  madeIn: string,
): Promise<(Change & { state: 'made' | 'undone' | 'dropped' }) | undefined> {
  const row = await db('changes')
    .where({ subject, madeIn })
    .orderBy('id', 'desc')
    .first([...columns, 'state']);
  return row && { ...fromRow(row), state: row.state };
}

/** What was changed after a change, and stands: anybody's. */
export async function changedAfter(db: Database, subject: string, id: number): Promise<Change[]> {
  const rows: Row[] = await db('changes').where({ subject, state: 'made' }).where('id', '>', id).select(columns);
  return rows.flatMap((row) => fromRow(row) ?? []);
}

/** Marks a change as undone, as made again, or as one that can be neither any more. */
export async function markChange(db: Database, id: number, state: 'made' | 'undone' | 'dropped'): Promise<void> {
  await db('changes').where({ id }).update({ state });
}

const DAY = 24 * 3600;
const KEPT_SECONDS = { dropped: 30 * DAY, undone: 365 * DAY, made: 365 * DAY };

/** Forgets changes that can be neither undone nor made again any more, some weeks after they were made, and all after a year. */
export async function forgetOldChanges(db: Database): Promise<void> {
  for (const [state, seconds] of Object.entries(KEPT_SECONDS)) {
    await deleteInSteps(() => db('changes').where({ state }).where('at', '<', inSeconds(db, -seconds)));
  }
}
