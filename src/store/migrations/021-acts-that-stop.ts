import type { Knex } from 'knex';

/**
 * Acts on many videos can be stopped, and are taken back in the background; which video was in hand is kept before it is, so
 * that a worker that is killed does nothing a second time. Notices of one cause are one, with how many they stand for.
 */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('manyActs', (table) => {
    table.enum('state', ['waiting', 'done', 'stopped', 'undoing', 'undone']).notNullable().alter();
  });
  await db.schema.alterTable('manyResults', (table) => {
    table.boolean('begun').notNullable().defaultTo(false);
    table.boolean('undone');
  });
  await db.schema.alterTable('notices', (table) => {
    table.specificType('cause', 'CHAR(64) CHARACTER SET ascii').unique();
    table.integer('count').unsigned().notNullable().defaultTo(1);
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.alterTable('notices', (table) => table.dropColumns('cause', 'count'));
  await db.schema.alterTable('manyResults', (table) => table.dropColumns('begun', 'undone'));
  await db('manyActs').whereIn('state', ['stopped', 'undoing']).update({ state: 'done' });
  await db.schema.alterTable('manyActs', (table) => {
    table.enum('state', ['waiting', 'done', 'undone']).notNullable().alter();
  });
}
