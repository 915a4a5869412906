import type { Knex } from 'knex';

const TABLES = ['changes', 'dropEvents', 'manyActs', 'notices'] as const;

/** By whom: every change, step of a drop, act and notice says it. What was there before does not know. */
export async function up(db: Knex): Promise<void> {
  for (const name of TABLES) {
    await db.schema.alterTable(name, (table) => {
      table.specificType('actor', 'VARCHAR(60) CHARACTER SET ascii');
      table.specificType('via', 'VARCHAR(20) CHARACTER SET ascii');
    });
  }
}

export async function down(db: Knex): Promise<void> {
  for (const name of TABLES) await db.schema.alterTable(name, (table) => table.dropColumns('actor', 'via'));
}
