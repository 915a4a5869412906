import type { Knex } from 'knex';

/** By how many milliseconds the sound of a made file is another than the cut's, around the parts that were to be. */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('renditions', (table) => {
    table.integer('soundAround').unsigned();
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.alterTable('renditions', (table) => table.dropColumn('soundAround'));
}
