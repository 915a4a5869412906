import type { Knex } from 'knex';
import { id, moment, refer } from './columns';

export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('manyActs', (table) => {
    id(table, 'id').primary();
    table.json('act').notNullable();
    table.json('videoIds').notNullable();
    table.enum('state', ['waiting', 'done', 'undone']).notNullable();
    moment(table, 'askedAt').notNullable();
    moment(table, 'endedAt');
    table.index(['askedAt']);
  });
  // What came of it for each video that is behind it, so that a worker that is killed goes on from there.
  await db.schema.createTable('manyResults', (table) => {
    id(table, 'actId').notNullable();
    id(table, 'videoId').notNullable();
    table.boolean('changed').notNullable();
    table.string('title', 1000).notNullable();
    table.string('why', 1000);
    table.primary(['actId', 'videoId']);
    refer(table, 'actId', 'manyActs', 'CASCADE');
  });
  // What the Board is asked for, under a name.
  await db.schema.createTable('boardViews', (table) => {
    table.string('name', 60).primary();
    table.string('query', 1000).notNullable();
  });
  await db.schema.alterTable('accounts', (table) => {
    // One that was removed is not shown any more; what went to its channels stays in the history.
    table.enum('state', ['connected', 'taken back', 'disconnected', 'removed']).notNullable().alter();
  });
  // The account that somebody wants to sign in with, where it is one that is known.
  await db.schema.alterTable('connectRequests', (table) => id(table, 'accountId'));
  await db.schema.alterTable('videos', (table) => {
    // A video that is to go as soon as it is gone from its sites.
    moment(table, 'deleteAskedAt');
    table.index(['deleteAskedAt']);
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.alterTable('videos', (table) => {
    table.dropIndex(['deleteAskedAt']);
    table.dropColumn('deleteAskedAt');
  });
  await db.schema.alterTable('connectRequests', (table) => table.dropColumn('accountId'));
  await db('accounts').where({ state: 'removed' }).update({ state: 'disconnected' });
  await db.schema.alterTable('accounts', (table) => {
    table.enum('state', ['connected', 'taken back', 'disconnected']).notNullable().alter();
  });
  await db.schema.dropTable('boardViews');
  await db.schema.dropTable('manyResults');
  await db.schema.dropTable('manyActs');
}
