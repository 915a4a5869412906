import type { Knex } from 'knex';
import { moment } from './columns';

/**
 * When a drop opened to others than its owner, which is not when it was ready, nor gone where it was closed since; and a way to
 * the rights matches that wait for a person.
 */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('drops', (table) => {
    moment(table, 'openedAt');
    table.index(['openedAt']);
    table.dropIndex(['liveAt']);
  });
  await db('drops')
    .whereNotNull('liveAt')
    .whereNotNull('openedTo')
    .whereNot({ openedTo: 'private' })
    .update({ openedAt: db.ref('liveAt') });
  await db.schema.alterTable('rightsMatches', (table) => table.index(['state', 'dropId']));
}

export async function down(db: Knex): Promise<void> {
  await db.schema.alterTable('rightsMatches', (table) => table.dropIndex(['state', 'dropId']));
  await db.schema.alterTable('drops', (table) => {
    table.index(['liveAt']);
    table.dropIndex(['openedAt']);
    table.dropColumn('openedAt');
  });
}
