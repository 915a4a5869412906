import type { Knex } from 'knex';

/** By what old rows are found when they are cleared away. */
const FOUND_BY: Record<string, string[]> = {
  changes: ['state', 'at'],
  dropEvents: ['kind', 'at'],
  notices: ['at'],
  jobs: ['state', 'kind', 'endedAt'],
  siteRequests: ['at'],
};

const named = (table: string) => `${table.replace(/[A-Z]/g, (letter) => `_${letter.toLowerCase()}`)}_old`;

/** What grows with time is cleared without reading all of it. */
export async function up(db: Knex): Promise<void> {
  for (const [name, columns] of Object.entries(FOUND_BY)) {
    await db.schema.alterTable(name, (table) => table.index(columns, named(name)));
  }
}

export async function down(db: Knex): Promise<void> {
  for (const name of Object.keys(FOUND_BY)) {
    await db.schema.alterTable(name, (table) => table.dropIndex([], named(name)));
  }
}
