import type { Knex } from 'knex';

/** The release that a drop was agreed to open by; of those that were sent before, nobody knows, and they open as they were set. */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('drops', (table) => {
    table.json('agreed');
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.alterTable('drops', (table) => table.dropColumn('agreed'));
}
