import type { Knex } from 'knex';
import { newId } from '../ids';
import { claimColumns, id, moment, refer } from './columns';

export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('markers', (table) => {
    table.enum('kind', ['by choice', 'chapter', 'note']).notNullable().defaultTo('by choice');
  });
  await db('markers').where({ hidden: true }).update({ kind: 'note' });
  await db.schema.alterTable('markers', (table) => table.dropColumn('hidden'));
  await db.schema.alterTable('videos', (table) => {
    table.json('chapterChoice');
    table.json('timeLine');
    table.integer('markersVersion').unsigned().notNullable().defaultTo(0);
  });
  const videos: { id: string; chapterColours: string }[] = await db('videos').select('id', 'chapterColours');
  for (const { id: video, chapterColours } of videos) {
    const chapterChoice = JSON.stringify({ colours: JSON.parse(chapterColours), places: [], name: '' });
    await db('videos').where({ id: video }).update({ chapterChoice });
  }
  await db.schema.alterTable('videos', (table) => table.dropColumn('chapterColours'));
  // Changes of the old fields could not be undone any more.
  await db('changes').whereIn('field', ['markers', 'chapterColours']).delete();
  await db.schema.createTable('measurements', (table) => {
    id(table, 'id').primary();
    id(table, 'cutId').notNullable();
    table.enum('state', ['waiting', 'ready', 'failed']).notNullable();
    table.json('found');
    table.string('trouble', 500);
    claimColumns(table);
    refer(table, 'cutId', 'cuts', 'CASCADE');
    table.unique(['cutId']);
    table.index(['state', 'nextTryAt']);
  });
  const cuts: { id: string }[] = await db('cuts').select('id').where({ state: 'ready' });
  for (const cut of cuts) {
    await db('measurements').insert({ id: newId(), cutId: cut.id, state: 'waiting', nextTryAt: new Date() });
  }
  await db.schema.createTable('captions', (table) => {
    id(table, 'id').primary();
    id(table, 'videoId').notNullable();
    table.string('language', 35).notNullable();
    table.string('fileName', 500).notNullable();
    table.text('webvtt', 'longtext').notNullable();
    table.json('findings').notNullable();
    table.boolean('inUse').notNullable().defaultTo(true);
    moment(table, 'createdAt').notNullable();
    refer(table, 'videoId', 'videos', 'CASCADE');
    table.index(['videoId', 'language']);
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.dropTable('captions');
  await db.schema.dropTable('measurements');
  await db.schema.alterTable('videos', (table) => {
    table.json('chapterColours');
    table.dropColumns('chapterChoice', 'timeLine', 'markersVersion');
  });
  await db.schema.alterTable('markers', (table) => {
    table.boolean('hidden').notNullable().defaultTo(false);
    table.dropColumn('kind');
  });
}
