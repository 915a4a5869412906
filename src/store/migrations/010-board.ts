import type { Knex } from 'knex';

export async function up(db: Knex): Promise<void> {
  // The Board's groups are worked out from these alone: one pass over the index, and no look at the rows.
  await db.schema.alterTable('drops', (table) => {
    table.index(['videoId', 'state', 'putOffBy', 'putOffSince'], 'drops_board');
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.alterTable('drops', (table) => table.dropIndex([], 'drops_board'));
}
