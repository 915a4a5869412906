import type { Knex } from 'knex';
import { claimColumns, id, moment, refer } from './columns';

/** Fields that were kept whole before there were layers, with what held where nobody had set them. */
const PLAIN: Record<string, unknown> = {
  category: '',
  language: '',
  licence: 'all rights reserved',
  recordedOn: '',
  place: '',
  adultsOnly: false,
  paidPlacement: false,
  comments: 'open',
  ratings: true,
  embedding: true,
  tellSubscribers: true,
  adverts: 'off',
  credits: [],
  products: [],
  privacy: 'private',
};

interface OldVideo {
  id: string;
  tags: string;
  privacy: string;
  declarations: string | null;
}

/** What was really set on a video: what is as it would be anyway is left to the layers. */
function setOn({ tags, privacy, declarations }: OldVideo): string {
  const all: Record<string, unknown> = { ...(declarations ? JSON.parse(declarations) : {}), privacy };
  const set = Object.entries(all).filter(([field, value]) => JSON.stringify(value) !== JSON.stringify(PLAIN[field]));
  const items: string[] = JSON.parse(tags);
  return JSON.stringify({ ...Object.fromEntries(set), ...(items.length > 0 ? { tags: { way: 'add', items } } : {}) });
}

const rename = (db: Knex, table: string, from: string, to: string) =>
  db.raw('ALTER TABLE ?? RENAME COLUMN ?? TO ??', [table, from, to]);

export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('series', (table) => {
    id(table, 'id').primary();
    table.string('name', 200).notNullable();
    table.string('pattern', 300).notNullable();
    moment(table, 'lastUsedAt');
    moment(table, 'createdAt').notNullable();
  });
  await db.schema.createTable('defaults', (table) => {
    table.enum('layer', ['site', 'channel', 'series']).notNullable();
    table.specificType('owner', 'VARCHAR(40) CHARACTER SET ascii').notNullable();
    table.text('setValues', 'mediumtext').notNullable();
    moment(table, 'updatedAt').notNullable();
    table.primary(['layer', 'owner']);
  });
  await db.schema.createTable('shelf', (table) => {
    table.string('name', 60).primary();
    table.string('label', 200).notNullable();
    table.string('url', 2000).notNullable();
    moment(table, 'updatedAt').notNullable();
  });
  await db.schema.alterTable('videos', (table) => {
    table.json('own');
    id(table, 'seriesId');
    table.enum('seriesFrom', ['file', 'last used', 'person']);
    table.string('episode', 40).notNullable().defaultTo('');
    refer(table, 'seriesId', 'series', 'SET NULL');
  });
  await rename(db, 'videos', 'description', 'summary');
  const videos: OldVideo[] = await db('videos').select('id', 'tags', 'privacy', 'declarations');
  for (const video of videos) {
    await db('videos')
      .where({ id: video.id })
      .update({ own: setOn(video) });
  }
  await db.schema.alterTable('videos', (table) => table.dropColumns('tags', 'privacy', 'declarations'));
  const drops: { id: string; own: string | null; privacy: string | null; playlists: string }[] = await db('drops')
    .select('id', 'own', 'privacy', 'playlists')
    .where((query) => query.whereNotNull('privacy').orWhereNotNull('own'));
  for (const { id: drop, own, privacy } of drops) {
    const set = { ...(own ? JSON.parse(own) : {}), ...(privacy ? { privacy } : {}) };
    await db('drops')
      .where({ id: drop })
      .update({ own: JSON.stringify(set) });
  }
  await db.schema.alterTable('drops', (table) => {
    table.dropColumn('privacy');
    table.json('sentWith');
    // Not chosen is another thing than none: the first takes those of the layers.
    table.text('chosenPlaylists', 'mediumtext');
  });
  // There were no layers when these were sent.
  const sentWith = JSON.stringify({ site: {}, channel: {}, series: {}, seriesName: '', shelf: {} });
  await db('drops').whereNotIn('state', ['draft', 'removed']).update({ sentWith });
  await db('drops')
    .whereNot({ playlists: '[]' })
    .update({ chosenPlaylists: db.ref('playlists') });
  await db.schema.alterTable('drops', (table) => table.dropColumn('playlists'));
  await db.schema.alterTable('pictures', (table) => {
    table.boolean('byHabit').notNullable().defaultTo(false);
  });
  await db.schema.createTable('pictureHabits', (table) => {
    id(table, 'id').primary();
    table.enum('state', ['waiting', 'done']).notNullable();
    claimColumns(table);
    refer(table, 'id', 'videos', 'CASCADE');
    table.index(['state', 'nextTryAt']);
  });
  // Changes of series, of channels' defaults and of the shelf are written down beside those of videos.
  await db.schema.alterTable('changes', (table) => table.dropForeign('videoId'));
  await rename(db, 'changes', 'videoId', 'subject');
  // Changes of fields that are kept in another form now could not be undone any more.
  await db('changes')
    .whereIn('field', ['tags', 'privacy', 'declarations', 'description', 'channel', 'onChannel'])
    .delete();
}

export async function down(db: Knex): Promise<void> {
  await rename(db, 'changes', 'subject', 'videoId');
  await db.schema.alterTable('changes', (table) => refer(table, 'videoId', 'videos', 'CASCADE'));
  await db.schema.alterTable('pictures', (table) => table.dropColumn('byHabit'));
  await db.schema.alterTable('drops', (table) => {
    table.dropColumns('sentWith', 'chosenPlaylists');
    table.enum('privacy', ['everyone', 'link', 'private']);
    table.json('playlists').notNullable().defaultTo('[]');
  });
  await db.schema.alterTable('videos', (table) => {
    table.dropForeign('seriesId');
    table.dropColumns('own', 'seriesId', 'seriesFrom', 'episode');
    table.json('tags').notNullable().defaultTo('[]');
    table.enum('privacy', ['everyone', 'link', 'private']).notNullable().defaultTo('private');
    table.json('declarations');
  });
  await rename(db, 'videos', 'summary', 'description');
  for (const table of ['pictureHabits', 'shelf', 'defaults', 'series']) await db.schema.dropTable(table);
}
