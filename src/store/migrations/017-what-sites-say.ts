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
}

export async function down(db: Knex): Promise<void> {
  await db.schema.dropTable('sounds');
  await db.schema.dropTable('rightsMatches');
}
