import type { Knex } from 'knex';

const BEFORE = ['waiting', 'done', 'stopped', 'undoing', 'undone'];

/** An act on many videos can rest until somebody lets it go on; and what one has in hand is found by its video. */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('manyActs', (table) => {
    table
      .enum('state', [...BEFORE, 'paused'])
      .notNullable()
      .alter();
  });
  await db.schema.alterTable('manyResults', (table) => {
    table.index(['videoId', 'begun'], 'many_results_in_hand');
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.alterTable('manyResults', (table) => table.dropIndex([], 'many_results_in_hand'));
  await db('manyActs').where({ state: 'paused' }).update({ state: 'stopped' });
  await db.schema.alterTable('manyActs', (table) => {
    table.enum('state', BEFORE).notNullable().alter();
  });
}
