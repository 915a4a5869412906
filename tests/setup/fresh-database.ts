import type { Knex } from 'knex';

/** What migrations put in stands in here once more, for those who begin anew. */
const KEPT = 'kettle_as_made';

/** All tables but those that tell of the database itself. */
const tablesOf = async (db: Knex, schema: string | undefined): Promise<string[]> => {
  const named =
    "SELECT table_name AS name FROM information_schema.tables WHERE table_schema = ? AND table_name NOT LIKE 'knex%' AND table_name <> 'installation'";
  const [rows] = await db.raw(named, [schema ?? (await db.raw('SELECT DATABASE() AS name'))[0][0].name]);
  return (rows as { name: string }[]).map(({ name }) => name);
};

/** Remembers what is in a database that has been migrated, and not been used yet. */
export async function keepAsMade(db: Knex): Promise<void> {
  await db.raw('CREATE DATABASE ??', [KEPT]);
  for (const table of await tablesOf(db, undefined)) {
    await db.raw('CREATE TABLE ??.?? AS SELECT * FROM ??', [KEPT, table, table]);
  }
}

/**
 * Takes out everything that came in since; what counts up goes on counting, so that nobody who follows it misses any. No
 * worker may run meanwhile.
 */
export async function emptyDatabase(db: Knex): Promise<void> {
  const tables = await tablesOf(db, KEPT);
  await db.transaction(async (trx) => {
    await trx.raw('SET foreign_key_checks = 0');
    for (const table of tables) await trx.raw('DELETE FROM ??', [table]);
    for (const table of tables) await trx.raw('INSERT INTO ?? SELECT * FROM ??.??', [table, KEPT, table]);
    await trx.raw('SET foreign_key_checks = 1');
  });
}
