import type { Database } from './database';

/** Makes changes of one thing wait for each other until the transaction ends, also where it has no row of its own yet. */
export async function lockThing(trx: Database, name: string): Promise<void> {
  await trx('locks').insert({ name }).onConflict('name').ignore();
  await trx('locks').where({ name }).forUpdate().first('name');
}
