import type { Knex } from 'knex';

export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('markers', (table) => {
    table.boolean('hidden').notNullable().defaultTo(false);
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.alterTable('markers', (table) => {
    table.dropColumn('hidden');
  });
}
