import type { Actor } from '@/core/actor';
import { actorOf, type ByRow, byNow } from '@/store/actor';
import { now } from '@/store/clock';
import { type Database, fromJson, toJson } from '@/store/database';
import { newId } from '@/store/ids';

/** What a person does with many videos at once; the act itself is the desk's. */
export interface ManyAct {
  id: string;
  act: unknown;
  videoIds: string[];
  state: 'waiting' | 'done' | 'stopped' | 'paused' | 'undoing' | 'undone';
  askedAt: Date;
  endedAt: Date | undefined;
  /** Who asked for it. */
  by: Actor;
}

/** What came of an act for one video. */
export interface OneResult {
  videoId: string;
  /** Its title then, which is all that is left of one that is deleted. */
  title: string;
  changed: boolean;
  /** Why something could not be done. */
  why: string | undefined;
  /** Whether it is in hand: nobody has written down yet what came of it. */
  begun: boolean;
  /** Whether it was taken back, or stays; undefined where nobody has asked for that. */
  undone: boolean | undefined;
}

type Row = Omit<ManyAct, 'act' | 'videoIds' | 'endedAt' | 'by'> &
  Record<'act' | 'videoIds', string> & { endedAt: Date | null } & ByRow;

const columns = ['id', 'act', 'videoIds', 'state', 'askedAt', 'endedAt', 'actor', 'via'];

const fromRow = ({ actor, via, ...row }: Row): ManyAct => ({
  ...row,
  by: actorOf({ actor, via }),
  act: fromJson(row.act),
  videoIds: fromJson<string[]>(row.videoIds) ?? [],
  endedAt: row.endedAt ?? undefined,
});

/** Writes an act down that is to be done; its id is returned. */
export async function addManyAct(db: Database, act: object, videoIds: readonly string[]): Promise<string> {
  const id = newId();
  const row = { id, act: toJson(act), videoIds: toJson([...videoIds]), state: 'waiting', askedAt: now(db), ...byNow() };
  await db('manyActs').insert(row);
  return id;
}

export async function manyActById(db: Database, id: string): Promise<ManyAct | undefined> {
  const row: Row | undefined = await db('manyActs').where({ id }).first(columns);
  return row && fromRow(row);
}

/** The newest acts, and all that have not ended, newest first. @param most how many of those that have */
export async function newestManyActs(db: Database, most: number): Promise<ManyAct[]> {
  const newest: { id: string }[] = await db('manyActs').orderBy('id', 'desc').limit(most).select('id');
  const rows: Row[] = await db('manyActs')
    .whereIn(
      'id',
      newest.map(({ id }) => id),
    )
    .orWhereIn('state', ['waiting', 'paused', 'undoing'])
    .orderBy('id', 'desc')
    .select(columns);
  return rows.map(fromRow);
}

/** Moves an act from one state to another; whether it was in that is returned. */
export async function moveManyAct(
  db: Database,
  id: string,
  from: ManyAct['state'],
  to: ManyAct['state'],
): Promise<boolean> {
  const moved = await db('manyActs')
    .where({ id, state: from })
    .update({ state: to, endedAt: now(db) });
  return moved > 0;
}

/** Acts that were asked for before one, and have not ended. */
export async function manyActsBefore(db: Database, id: string): Promise<ManyAct[]> {
  const rows: Row[] = await db('manyActs')
    .whereIn('state', ['waiting', 'undoing'])
    .where('id', '<', id)
    .orderBy('id')
    .select(columns);
  return rows.map(fromRow);
}

/**
 * Writes down that an act has a video in hand, before anything is done with it. Whether it has: not where another act, that has not
 * ended, has it.
 */
export async function beginResult(trx: Database, actId: string, videoId: string, title: string): Promise<boolean> {
  await trx('videos').where({ id: videoId }).forUpdate().first('id');
  const others: { actId: string } | undefined = await trx('manyResults')
    .join('manyActs', 'manyActs.id', 'manyResults.actId')
    .where({ videoId, begun: true })
    .whereNot({ actId })
    .whereIn('state', ['waiting', 'paused'])
    .first('actId');
  if (others) return false;
  await trx('manyResults')
    .insert({ actId, videoId, title: title.slice(0, 1000), changed: false, begun: true })
    .onConflict(['actId', 'videoId'])
    .ignore();
  return true;
}

/** Writes down what came of an act for one video; written once more, it stays as it was first. */
export async function endResult(
  db: Database,
  actId: string,
  result: Omit<OneResult, 'begun' | 'undone'>,
): Promise<void> {
  const { why, title, ...plain } = result;
  const row = { ...plain, actId, title: title.slice(0, 1000), why: why?.slice(0, 1000) ?? null, begun: false };
  await db('manyResults')
    .insert(row)
    .onConflict(['actId', 'videoId'])
    .merge({
      changed: db.raw('IF(begun, VALUES(changed), changed)'),
      why: db.raw('IF(begun, VALUES(why), why)'),
      // The last: the others are told by it.
      begun: false,
    });
}

/** Writes down whether what an act did with a video was taken back. */
export async function setUndone(db: Database, actId: string, videoId: string, undone: boolean): Promise<void> {
  await db('manyResults').where({ actId, videoId }).update({ undone });
}

/** What came of an act so far. */
export async function resultsOf(db: Database, actId: string): Promise<OneResult[]> {
  type Row = Pick<OneResult, 'videoId' | 'title'> &
    Record<'changed' | 'begun', number> &
    Record<'undone', number | null>;
  const rows: (Row & { why: string | null })[] = await db('manyResults')
    .where({ actId })
    .orderBy('videoId')
    .select('videoId', 'title', 'changed', 'why', 'begun', 'undone');
  return rows.map((row) => ({
    ...row,
    changed: row.changed === 1,
    begun: row.begun === 1,
    why: row.why ?? undefined,
    undone: row.undone === null ? undefined : row.undone === 1,
  }));
}

/** How much of an act is behind it. */
export interface ActCounts {
  done: number;
  changed: number;
  failed: number;
  /** Of those that were changed: on how many it was taken back, and on how many it stays. */
  undone: number;
  kept: number;
}

/** How much of each of some acts is behind it, by id; nothing is there for one that has not begun. */
export async function countsOf(db: Database, actIds: readonly string[]): Promise<Map<string, ActCounts>> {
  const rows: ({ actId: string } & Record<keyof ActCounts, number>)[] = await db('manyResults')
    .whereIn('actId', [...actIds])
    .groupBy('actId')
    .select('actId')
    .select({
      done: db.raw('SUM(NOT ??)', ['begun']),
      changed: db.raw('SUM(??)', ['changed']),
      failed: db.raw('COUNT(??)', ['why']),
      undone: db.raw('SUM(?? = 1)', ['undone']),
      kept: db.raw('SUM(?? = 0)', ['undone']),
    });
  return new Map(
    rows.map(({ actId, ...counts }) => {
      const numbers = Object.entries(counts).map(([name, count]) => [name, Number(count ?? 0)]);
      return [actId, Object.fromEntries(numbers) as ActCounts];
    }),
  );
}

/** The videos for which something of an act could not be done. @param most how many */
export async function failuresOf(
  db: Database,
  actId: string,
  most: number,
): Promise<Pick<OneResult, 'videoId' | 'title' | 'why'>[]> {
  const columns = ['videoId', 'title', 'why'];
  return db('manyResults').where({ actId }).whereNotNull('why').orderBy('videoId').limit(most).select(columns);
}

const KEPT_DAYS = 30;

/** Forgets acts that nobody will undo any more. */
export async function forgetOldManyActs(db: Database): Promise<void> {
  await db('manyActs')
    .where('askedAt', '<', db.raw('UTC_TIMESTAMP(3) - INTERVAL ? DAY', [KEPT_DAYS]))
    .delete();
}
