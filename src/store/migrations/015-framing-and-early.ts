import type { Knex } from 'knex';

/** Frames that are placed by hand, files that go up before their words, and files that are deleted once they are live. */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('videos', (table) => {
    table.json('framings');
  });
  await db.schema.alterTable('cuts', (table) => {
    table.dateTime('goneAt', { precision: 3 });
  });
  await db.schema.alterTable('workers', (table) => {
    // Codecs, with commas between them.
    table.string('hardware', 60).notNullable().defaultTo('');
  });
  await db.schema.createTable('earlyUploads', (table) => {
    table.string('id', 36).primary();
    // No reference: what is at a site is taken away there after its drop is gone here.
    // Null once it is not wanted any more.
    table.string('dropId', 36).unique();
    table.string('videoId', 36).notNullable().index();
    table.string('channelId', 36).notNullable();
    table.string('cutId', 36).notNullable();
    table.string('renditionId', 36);
    table.string('transferKey', 80).notNullable();
    table.json('begunWith');
    table.string('siteVideoId', 200);
    table.string('link', 2000);
    table.json('carry');
    table.bigInteger('bytesSent').notNullable().defaultTo(0);
    table.bigInteger('bytesTotal').notNullable().defaultTo(0);
    table.dateTime('createdAt', { precision: 3 }).notNullable();
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.dropTable('earlyUploads');
  await db.schema.alterTable('workers', (table) => table.dropColumn('hardware'));
  await db.schema.alterTable('cuts', (table) => table.dropColumn('goneAt'));
  await db.schema.alterTable('videos', (table) => table.dropColumn('framings'));
}
