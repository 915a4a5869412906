import type { Knex } from 'knex';
import { moment } from './columns';

/** When drops open: at a time, by a word that takes effect a little later, or by the site itself. */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('drops', (table) => {
    moment(table, 'opensAt');
    moment(table, 'wordAt');
    moment(table, 'siteOpensAt');
    table.string('releasedFor', 200);
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.alterTable('drops', (table) => table.dropColumns('opensAt', 'wordAt', 'siteOpensAt', 'releasedFor'));
}
