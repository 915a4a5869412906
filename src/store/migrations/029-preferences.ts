import type { Knex } from 'knex';

/** What the manager has answered once, by its name. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('preferences', (table) => {
    table.string('name', 40).primary();
    table.string('value', 200).notNullable();
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.dropTable('preferences');
}
