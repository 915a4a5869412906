import type { Knex } from 'knex';

/** The moment of a drop whose being late was told, and to whom one was shown that is closed. */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('drops', (table) => {
    table.specificType('lateTold', 'DATETIME(3)');
    table.string('closedFrom', 20);
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.alterTable('drops', (table) => table.dropColumns('lateTold', 'closedFrom'));
}
