import type { Knex } from 'knex';
import { moment } from './columns';

/**
 * To whom a site itself says that it shows a video, and when it opens it, apart from what it was asked; and what it was asked of
 * that, until it has answered. What is live was confirmed when it opened.
 */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('drops', (table) => {
    table.string('confirmedTo', 20);
    table.text('asking');
    moment(table, 'confirmedOpensAt');
  });
  await db('drops')
    .whereNotNull('liveAt')
    .update({ confirmedTo: db.ref('openedTo') });
  await db('drops')
    .whereNotNull('siteOpensAt')
    .update({ confirmedOpensAt: db.ref('siteOpensAt') });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.alterTable('drops', (table) => table.dropColumns('confirmedTo', 'asking', 'confirmedOpensAt'));
}
