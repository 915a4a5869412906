import type { Knex } from 'knex';
import { id, moment, refer } from './columns';

/** What sites say of a drop beside its state: rights matches, versions, reviews, what they were asked; and what was given them. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('rightsMatches', (table) => {
    id(table, 'id').primary();
    id(table, 'dropId').notNullable();
    table.string('siteVideoId', 200).notNullable();
    table.string('siteMatchId', 200).notNullable();
    table.string('owner', 200).notNullable();
    table.string('work', 200).notNullable();
    // Exact seconds of the file that was sent.
    table.json('spanFrom').notNullable();
    table.json('spanTo').notNullable();
    table.string('asks', 40);
    table.json('countries').notNullable();
    table.string('state', 20).notNullable();
    table.string('disputeText', 2000);
    moment(table, 'answerBy');
    table.string('answer', 1000);
    moment(table, 'foundAt').notNullable();
    moment(table, 'changedAt').notNullable();
    table.unique(['dropId', 'siteVideoId', 'siteMatchId'], { indexName: 'rights_matches_of_site' });
    refer(table, 'dropId', 'drops', 'CASCADE');
  });
  // Sounds that take the place of others in files for sites.
  await db.schema.createTable('sounds', (table) => {
    id(table, 'id').primary();
    id(table, 'videoId').notNullable();
    table.string('fileKey', 200).notNullable();
    table.string('fileName', 255).notNullable();
    table.json('duration').notNullable();
    table.bigInteger('size').unsigned().notNullable();
    moment(table, 'createdAt').notNullable();
    refer(table, 'videoId', 'videos', 'CASCADE');
  });
  // What sites were asked for a drop, in short; those alike that follow each other are one row.
  await db.schema.createTable('siteRequests', (table) => {
    table.bigIncrements('id');
    id(table, 'dropId').notNullable();
    moment(table, 'at').notNullable();
    table.string('method', 10).notNullable();
    table.string('purpose', 100).notNullable();
    table.integer('status').unsigned().notNullable();
    table.integer('milliseconds').unsigned().notNullable();
    table.integer('times').unsigned().notNullable();
    table.index(['dropId', 'id']);
    refer(table, 'dropId', 'drops', 'CASCADE');
  });
  await db.schema.createTable('reviews', (table) => {
    table.bigIncrements('id');
    id(table, 'dropId').notNullable();
    table.string('site', 40).notNullable();
    moment(table, 'handedInAt').notNullable();
    moment(table, 'endedAt');
    table.boolean('approved');
    table.string('reason', 1000);
    table.string('remedy', 1000);
    // The words that were handed in.
    table.specificType('given', 'MEDIUMTEXT');
    table.index(['dropId', 'id']);
    table.index(['site', 'endedAt']);
    refer(table, 'dropId', 'drops', 'CASCADE');
  });
  // The words that a site was given, each time that they were others than before.
  await db.schema.createTable('givenWords', (table) => {
    table.bigIncrements('id');
    id(table, 'dropId').notNullable();
    moment(table, 'at').notNullable();
    table.specificType('words', 'MEDIUMTEXT').notNullable();
    table.index(['dropId', 'id']);
    refer(table, 'dropId', 'drops', 'CASCADE');
  });
  await db.schema.alterTable('drops', (table) => {
    // With a password, too.
    table.string('openedTo', 20).alter();
    // Versions that play at the site, and the speed of the line over time.
    table.json('versions');
    table.json('speeds');
    // When a live video was read again, and what the site showed otherwise than it was meant.
    moment(table, 'readAt');
    table.json('shows');
    // The video that a better file is to take the place of, and links that led to videos before it.
    table.json('former');
    table.json('formerLinks');
    table.index(['channelId', 'state', 'readAt'], 'drops_to_read');
  });
}

export async function down(db: Knex): Promise<void> {
  // What the form of before does not know is told as what is nearest, and wider.
  await db('drops').where({ openedTo: 'password' }).update({ openedTo: 'link' });
  await db.schema.alterTable('drops', (table) => {
    table.enum('openedTo', ['everyone', 'link', 'private']).alter();
    table.dropIndex([], 'drops_to_read');
    table.dropColumns('versions', 'speeds', 'readAt', 'shows', 'former', 'formerLinks');
  });
  for (const name of ['givenWords', 'reviews', 'siteRequests']) await db.schema.dropTable(name);
  await db.schema.dropTable('sounds');
  await db.schema.dropTable('rightsMatches');
}
