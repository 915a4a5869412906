import type { Knex } from 'knex';

/** A drop that an act on many has moved on is carried on behind what somebody waits for. */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('drops', (table) => {
    table.boolean('amongMany').notNullable().defaultTo(false);
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.alterTable('drops', (table) => table.dropColumn('amongMany'));
}
