import type { Knex } from 'knex';

export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('markers', (table) => {
    table.boolean('hidden').notNullable().defaultTo(false);
  });
  // A change of markers is kept as what was put and what was taken away, no longer as two whole lists.
  await db('changes').where({ field: 'markers' }).delete();
}

export async function down(db: Knex): Promise<void> {
  await db.schema.alterTable('markers', (table) => {
    table.dropColumn('hidden');
  });
}
