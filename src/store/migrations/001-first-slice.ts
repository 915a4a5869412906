import type { Knex } from 'knex';
import { claimColumns, id, moment, refer } from './columns';

export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('accounts', (table) => {
    id(table, 'id').primary();
    table.string('site', 40).notNullable();
    table.string('siteAccountId', 120).notNullable();
    table.string('name', 200).notNullable();
    table.text('sealedTokens');
    table.string('scope', 500).notNullable();
    table.enum('state', ['connected', 'taken back', 'disconnected']).notNullable();
    moment(table, 'createdAt').notNullable();
    moment(table, 'updatedAt').notNullable();
    table.unique(['site', 'siteAccountId']);
  });
  await db.schema.createTable('connectRequests', (table) => {
    table.string('state', 100).primary();
    table.string('site', 40).notNullable();
    table.text('sealedVerifier').notNullable();
    moment(table, 'createdAt').notNullable();
  });
  await db.schema.createTable('channels', (table) => {
    id(table, 'id').primary();
    id(table, 'accountId').notNullable();
    table.string('siteChannelId', 120).notNullable();
    table.string('name', 200).notNullable();
    table.string('address', 500).notNullable();
    table.boolean('granted').notNullable().defaultTo(true);
    moment(table, 'createdAt').notNullable();
    refer(table, 'accountId', 'accounts', 'RESTRICT');
    table.unique(['accountId', 'siteChannelId']);
  });
  await db.schema.createTable('playlists', (table) => {
    id(table, 'id').primary();
    id(table, 'channelId').notNullable();
    table.string('sitePlaylistId', 120).notNullable();
    table.string('title', 300).notNullable();
    table.integer('videos').unsigned().notNullable().defaultTo(0);
    refer(table, 'channelId', 'channels', 'CASCADE');
    table.unique(['channelId', 'sitePlaylistId']);
  });
  await db.schema.createTable('videos', (table) => {
    id(table, 'id').primary();
    table.string('title', 1000).notNullable();
    table.enum('titleFrom', ['file', 'person']).notNullable();
    table.text('description', 'mediumtext').notNullable();
    table.json('tags').notNullable();
    table.enum('privacy', ['everyone', 'link', 'private']).notNullable();
    table.json('chapterColours').notNullable();
    id(table, 'pictureId');
    moment(table, 'createdAt').notNullable();
    moment(table, 'updatedAt').notNullable();
  });
  await db.schema.createTable('cuts', (table) => {
    id(table, 'id').primary();
    id(table, 'videoId').notNullable();
    table.integer('ordinal').unsigned().notNullable();
    table.string('fileName', 500).notNullable();
    table.string('fileKey', 200).notNullable();
    table.string('fingerprint', 200);
    table.bigInteger('size').unsigned().notNullable();
    table.bigInteger('received').unsigned().notNullable().defaultTo(0);
    table.enum('state', ['arriving', 'reading', 'ready', 'refused']).notNullable();
    table.string('digest', 64);
    table.json('facts');
    table.text('refusal');
    moment(table, 'createdAt').notNullable();
    moment(table, 'arrivedAt');
    claimColumns(table);
    refer(table, 'videoId', 'videos', 'CASCADE');
    table.unique(['videoId', 'ordinal']);
    table.index(['state', 'nextTryAt']);
  });
  await db.schema.createTable('markers', (table) => {
    id(table, 'id').primary();
    id(table, 'videoId').notNullable();
    table.bigInteger('timeNum').notNullable();
    table.bigInteger('timeDen').notNullable();
    table.bigInteger('lengthNum').notNullable();
    table.bigInteger('lengthDen').notNullable();
    table.string('name', 1000).notNullable();
    table.text('note').notNullable();
    table.string('colour', 40).notNullable();
    table.enum('sat', ['timeline', 'track', 'clip']).notNullable();
    refer(table, 'videoId', 'videos', 'CASCADE');
  });
  await db.schema.createTable('pictures', (table) => {
    id(table, 'id').primary();
    id(table, 'videoId').notNullable();
    table.string('fileKey', 200).notNullable();
    table.string('type', 40).notNullable();
    table.integer('width').unsigned().notNullable();
    table.integer('height').unsigned().notNullable();
    table.bigInteger('size').unsigned().notNullable();
    table.string('digest', 64).notNullable();
    table.enum('source', ['file', 'frame']).notNullable();
    moment(table, 'createdAt').notNullable();
    refer(table, 'videoId', 'videos', 'CASCADE');
  });
  await db.schema.alterTable('videos', (table) => refer(table, 'pictureId', 'pictures', 'SET NULL'));
  await db.schema.createTable('renditions', (table) => {
    id(table, 'id').primary();
    id(table, 'cutId').notNullable();
    table.string('settings', 64).notNullable();
    table.string('fileKey', 200).notNullable();
    table.bigInteger('size').unsigned().notNullable();
    table.string('digest', 64).notNullable();
    moment(table, 'createdAt').notNullable();
    refer(table, 'cutId', 'cuts', 'CASCADE');
    table.unique(['cutId', 'settings']);
  });
  await db.schema.createTable('drops', (table) => {
    id(table, 'id').primary();
    id(table, 'videoId').notNullable();
    id(table, 'channelId').notNullable();
    id(table, 'renditionId');
    table
      .enum('state', [
        'draft',
        'packing',
        'landing',
        'settling',
        'clearing',
        'proofing',
        'opening',
        'removing',
        'held',
        'live',
        'snag',
        'removed',
      ])
      .notNullable();
    table.json('snag');
    table.string('waiting', 500);
    table.enum('privacy', ['everyone', 'link', 'private']);
    table.json('playlists').notNullable();
    table.integer('round').unsigned().notNullable().defaultTo(0);
    table.string('siteVideoId', 120);
    table.string('link', 1000);
    table.json('carry');
    table.json('progress');
    table.bigInteger('bytesSent').unsigned().notNullable().defaultTo(0);
    table.bigInteger('bytesTotal').unsigned().notNullable().defaultTo(0);
    table.json('sentWords');
    table.boolean('openAsked').notNullable().defaultTo(false);
    moment(table, 'createdAt').notNullable();
    moment(table, 'sentAt');
    moment(table, 'liveAt');
    moment(table, 'updatedAt').notNullable();
    claimColumns(table);
    refer(table, 'videoId', 'videos', 'CASCADE');
    refer(table, 'channelId', 'channels', 'RESTRICT');
    refer(table, 'renditionId', 'renditions', 'RESTRICT');
    table.unique(['videoId', 'channelId']);
    table.index(['state', 'nextTryAt']);
  });
  await db.schema.createTable('dropEvents', (table) => {
    table.bigIncrements('id');
    id(table, 'dropId').notNullable();
    moment(table, 'at').notNullable();
    table.string('kind', 40).notNullable();
    table.string('says', 2000).notNullable();
    refer(table, 'dropId', 'drops', 'CASCADE');
  });
  await db.schema.createTable('changes', (table) => {
    table.bigIncrements('id');
    id(table, 'videoId').notNullable();
    moment(table, 'at').notNullable();
    table.string('field', 40).notNullable();
    table.text('before', 'longtext').notNullable();
    table.text('after', 'longtext').notNullable();
    table.enum('state', ['made', 'undone', 'dropped']).notNullable();
    refer(table, 'videoId', 'videos', 'CASCADE');
    table.index(['videoId', 'state', 'id']);
  });
  await db.schema.createTable('feed', (table) => {
    table.bigIncrements('id');
    table.string('topic', 40).notNullable();
    id(table, 'subject').notNullable();
    moment(table, 'at').notNullable();
    table.index(['at']);
  });
  await db.schema.createTable('workers', (table) => {
    table.string('id', 80).primary();
    moment(table, 'startedAt').notNullable();
    moment(table, 'beatAt').notNullable();
  });
}

export async function down(db: Knex): Promise<void> {
  const tables = ['workers', 'feed', 'changes', 'dropEvents', 'drops', 'renditions'];
  for (const table of tables) await db.schema.dropTable(table);
  await db.schema.alterTable('videos', (table) => table.dropForeign('pictureId'));
  const rest = ['pictures', 'markers', 'cuts', 'videos', 'playlists', 'channels', 'connectRequests', 'accounts'];
  for (const table of rest) await db.schema.dropTable(table);
}
