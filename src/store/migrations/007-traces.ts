import type { Knex } from 'knex';

export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('drops', (table) => {
    // Noted before a site is asked to make room, so that what it made is known whatever happens to the answer.
    table.json('begunWith');
    // Ids of videos at the site that this drop no longer means, until they are removed there.
    table.json('leftBehind');
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.alterTable('drops', (table) => table.dropColumns('begunWith', 'leftBehind'));
}
