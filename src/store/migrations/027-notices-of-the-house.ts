import type { Knex } from 'knex';
import { id } from './columns';

const OF_A_DROP = ['videoId', 'dropId', 'channelId'] as const;

/** A notice need not be about a drop: it may be about the disk, or about something that was done with many videos. */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('notices', (table) => {
    for (const name of OF_A_DROP) id(table, name).nullable().alter();
    table.string('about', 200);
    table.string('page', 200);
  });
}

export async function down(db: Knex): Promise<void> {
  await db('notices').whereNull('dropId').delete();
  await db.schema.alterTable('notices', (table) => {
    for (const name of OF_A_DROP) id(table, name).notNullable().alter();
    table.dropColumns('about', 'page');
  });
}
