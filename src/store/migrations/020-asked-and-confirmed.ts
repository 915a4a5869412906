import type { Knex } from 'knex';

/**
 * To whom a site itself says that it shows a video, apart from what it was asked at most; and what it was asked of that, until
 * it has answered. What is live was confirmed when it opened.
 */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('drops', (table) => {
    table.string('confirmedTo', 20);
    table.text('asking');
  });
  await db('drops')
    .whereNotNull('liveAt')
    .update({ confirmedTo: db.ref('openedTo') });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.alterTable('drops', (table) => table.dropColumns('confirmedTo', 'asking'));
}
