import type { Database } from '@/store/database';
import { newId } from '@/store/ids';

/** A kind of video with its own defaults. */
export interface Series {
  id: string;
  name: string;
  /** What the names of its files look like, as `partsByPattern` reads it; '' recognises none. */
  pattern: string;
  lastUsedAt: Date | undefined;
}

type Row = Omit<Series, 'lastUsedAt'> & { lastUsedAt: Date | null };

const columns = ['id', 'name', 'pattern', 'lastUsedAt'];
const fromRow = (row: Row): Series => ({ ...row, lastUsedAt: row.lastUsedAt ?? undefined });

/** Every series, by name. */
export async function allSeries(db: Database): Promise<Series[]> {
  const rows: Row[] = await db('series').select(columns).orderBy('name');
  return rows.map(fromRow);
}

export async function seriesById(db: Database, id: string): Promise<Series | undefined> {
  const row: Row | undefined = await db('series').where({ id }).first(columns);
  return row && fromRow(row);
}

/** Makes a series; its id is returned. @param id the one that it had, where it comes back */
export async function makeSeries(
  db: Database,
  { name, pattern }: Pick<Series, 'name' | 'pattern'>,
  id = newId(),
): Promise<string> {
  await db('series').insert({ id, name, pattern, createdAt: new Date() });
  return id;
}

export async function setSeries(
  db: Database,
  id: string,
  fields: Partial<Pick<Series, 'name' | 'pattern'>>,
): Promise<void> {
  await db('series').where({ id }).update(fields);
}

/** Notes that a video was put in a series just now. */
export async function noteSeriesUsed(db: Database, id: string): Promise<void> {
  await db('series').where({ id }).update({ lastUsedAt: new Date() });
}

/** Deletes a series; its videos stay, and are in none. */
export async function deleteSeries(db: Database, id: string): Promise<void> {
  await db('series').where({ id }).delete();
}
