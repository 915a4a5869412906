import { now } from './clock';
import { type Database, fromJson, toJson } from './database';
import { newId } from './ids';

/** What a person does with many videos at once; the act itself is the desk's. */
export interface ManyAct {
  id: string;
  act: unknown;
  videoIds: string[];
  state: 'waiting' | 'done' | 'undone';
  askedAt: Date;
  endedAt: Date | undefined;
}

/** What came of an act for one video. */
export interface OneResult {
  videoId: string;
  /** Its title then, which is all that is left of one that is deleted. */
  title: string;
  changed: boolean;
  /** Why something could not be done. */
  why: string | undefined;
}

type Row = Omit<ManyAct, 'act' | 'videoIds' | 'endedAt'> &
  Record<'act' | 'videoIds', string> & { endedAt: Date | null };

const columns = ['id', 'act', 'videoIds', 'state', 'askedAt', 'endedAt'];

const fromRow = (row: Row): ManyAct => ({
  ...row,
  act: fromJson(row.act),
  videoIds: fromJson<string[]>(row.videoIds) ?? [],
  endedAt: row.endedAt ?? undefined,
});

/** Writes an act down that is to be done; its id is returned. */
export async function addManyAct(db: Database, act: object, videoIds: readonly string[]): Promise<string> {
  const id = newId();
  const row = { id, act: toJson(act), videoIds: toJson([...videoIds]), state: 'waiting', askedAt: now(db) };
  await db('manyActs').insert(row);
  return id;
}

export async function manyActById(db: Database, id: string): Promise<ManyAct | undefined> {
  const row: Row | undefined = await db('manyActs').where({ id }).first(columns);
  return row && fromRow(row);
}

/** The newest acts, newest first. @param most how many */
export async function newestManyActs(db: Database, most: number): Promise<ManyAct[]> {
  const rows: Row[] = await db('manyActs').orderBy('id', 'desc').limit(most).select(columns);
  return rows.map(fromRow);
}

export async function setManyActState(db: Database, id: string, state: ManyAct['state']): Promise<void> {
  await db('manyActs')
    .where({ id })
    .update({ state, endedAt: now(db) });
}

/** Writes down what came of an act for one video; written once more, it stays as it was first. */
export async function addResult(db: Database, actId: string, result: OneResult): Promise<void> {
  const { why, title, ...plain } = result;
  await db('manyResults')
    .insert({ ...plain, actId, title: title.slice(0, 1000), why: why?.slice(0, 1000) ?? null })
    .onConflict(['actId', 'videoId'])
    .ignore();
}

/** What came of an act so far. */
export async function resultsOf(db: Database, actId: string): Promise<OneResult[]> {
  const rows: { videoId: string; title: string; changed: number; why: string | null }[] = await db('manyResults')
    .where({ actId })
    .orderBy('videoId')
    .select('videoId', 'title', 'changed', 'why');
  return rows.map((row) => ({ ...row, changed: row.changed === 1, why: row.why ?? undefined }));
}

/** How much of an act is behind it. */
export interface ActCounts {
  done: number;
  changed: number;
  failed: number;
}

/** How much of each of some acts is behind it, by id; nothing is there for one that has not begun. */
export async function countsOf(db: Database, actIds: readonly string[]): Promise<Map<string, ActCounts>> {
  const rows: ({ actId: string } & Record<keyof ActCounts, number>)[] = await db('manyResults')
    .whereIn('actId', [...actIds])
    .groupBy('actId')
    .select('actId')
    .select({
      done: db.raw('COUNT(*)'),
      changed: db.raw('SUM(??)', ['changed']),
      failed: db.raw('COUNT(??)', ['why']),
    });
  return new Map(
    rows.map(({ actId, done, changed, failed }) => [
      actId,
      { done: Number(done), changed: Number(changed), failed: Number(failed) },
    ]),
  );
}

/** The videos for which something of an act could not be done. @param most how many */
export async function failuresOf(db: Database, actId: string, most: number): Promise<Omit<OneResult, 'changed'>[]> {
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
