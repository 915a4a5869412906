import type { Knex } from 'knex';
import { id, moment, refer } from './columns';

/** What a manager is told, how, and what is on its way to other programs. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('notices', (table) => {
    table.bigIncrements('id');
    table.string('kind', 20).notNullable();
    id(table, 'videoId').notNullable();
    id(table, 'dropId').notNullable();
    id(table, 'channelId').notNullable();
    table.string('says', 1000).notNullable();
    moment(table, 'at').notNullable();
    moment(table, 'seenAt');
    table.index(['seenAt', 'id']);
    refer(table, 'dropId', 'drops', 'CASCADE');
  });
  await db.schema.createTable('deliveries', (table) => {
    id(table, 'id').primary();
    table.bigInteger('noticeId').unsigned().notNullable();
    table.string('way', 10).notNullable();
    table.integer('tries').unsigned().notNullable().defaultTo(0);
    moment(table, 'nextTryAt');
    // Told, or given up: then there is no next try.
    moment(table, 'toldAt');
    table.string('trouble', 500);
    table.index(['way', 'nextTryAt']);
    table.foreign('noticeId').references('id').inTable('notices').onDelete('CASCADE');
  });
  // One row at the most.
  await db.schema.createTable('noticeSettings', (table) => {
    table.tinyint('id').primary();
    table.json('settings').notNullable();
    table.text('sealedPassword');
    table.text('sealedSecret');
  });
}

export async function down(db: Knex): Promise<void> {
  for (const name of ['deliveries', 'notices', 'noticeSettings']) await db.schema.dropTable(name);
}
