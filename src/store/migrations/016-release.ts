import type { Knex } from 'knex';
import { moment } from './columns';

/** When drops open: at a time, by a word that takes effect a little later, or by the site itself. */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('drops', (table) => {
    moment(table, 'opensAt');
    moment(table, 'wordAt');
    moment(table, 'siteOpensAt');
    table.string('releasedFor', 200);
    table.index(['liveAt']);
  });
  // The secret address at which calendar programs read what opens; one row at the most.
  await db.schema.createTable('calendarAddress', (table) => {
    table.tinyint('id').primary();
    table.text('sealedToken').notNullable();
  });
  // The wall time that is set, for the Calendar to find it by; the database keeps it with the record.
  for (const table of ['videos', 'drops']) {
    await db.raw(`ALTER TABLE ?? ADD COLUMN ?? VARCHAR(19) AS (JSON_VALUE(??, '$.opensAt.wall')) PERSISTENT`, [
      table,
      'opensWall',
      'own',
    ]);
    await db.schema.alterTable(table, (altered) => altered.index(['opensWall']));
  }
}

export async function down(db: Knex): Promise<void> {
  await db.schema.dropTable('calendarAddress');
  for (const table of ['videos', 'drops']) {
    await db.schema.alterTable(table, (altered) => {
      altered.dropIndex(['opensWall']);
      altered.dropColumn('opensWall');
    });
  }
  await db.schema.alterTable('drops', (table) => {
    table.dropIndex(['liveAt']);
    table.dropColumns('opensAt', 'wordAt', 'siteOpensAt', 'releasedFor');
  });
}
