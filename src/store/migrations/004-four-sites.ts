import type { Knex } from 'knex';
import { moment } from './columns';

export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('videos', (table) => {
    table.json('declarations');
  });
  await db.schema.alterTable('drops', (table) => {
    table.json('own');
  });
  await db.schema.alterTable('channels', (table) => {
    table.boolean('mayEarn').notNullable().defaultTo(false);
    moment(table, 'lastUsedAt');
  });
  await db.schema.alterTable('pictures', (table) => {
    table.json('moment');
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.alterTable('pictures', (table) => table.dropColumn('moment'));
  await db.schema.alterTable('channels', (table) => table.dropColumns('mayEarn', 'lastUsedAt'));
  await db.schema.alterTable('drops', (table) => table.dropColumn('own'));
  await db.schema.alterTable('videos', (table) => table.dropColumn('declarations'));
}
