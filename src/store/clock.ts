import type { Knex } from 'knex';
import type { Database } from '@/store/database';

/** The database's own time, UTC, for writing and comparing: the one clock that all machines share. */
export const now = (db: Database): Knex.Raw => db.raw('UTC_TIMESTAMP(3)');

/** The database's time in so many seconds, or so many ago where the number is below zero. */
export const inSeconds = (db: Database, seconds: number): Knex.Raw =>
  db.raw('UTC_TIMESTAMP(3) + INTERVAL ? MICROSECOND', [Math.round(seconds * 1e6)]);

/** Reads the database's time. */
export async function databaseTime(db: Database): Promise<Date> {
  const row: { at: Date } = await db.select({ at: now(db) }).first();
  return row.at;
}
