import type { Knex } from 'knex';

/**
 * By what old rows are found when they are cleared away. None begins with what other statements look for: they would go by it,
 * and lock all that is next to what they change.
 */
const FOUND_BY: Record<string, string[]> = {
  changes: ['at', 'state'],
  dropEvents: ['kind', 'at'],
  notices: ['at'],
  jobs: ['endedAt', 'kind'],
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
