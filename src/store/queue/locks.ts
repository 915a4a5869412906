import type { Database } from '@/store/database';

/** Makes changes of one thing wait for each other until the transaction ends, also where it has no row of its own yet. */
export async function lockThing(trx: Database, name: string): Promise<void> {
  const lock = () => trx('locks').where({ name }).forUpdate().first('name');
  // Inserting what is there already takes a weaker lock first, and two who then want the stronger one are a deadlock.
  if (await lock()) return;
  await trx('locks').insert({ name }).onConflict('name').ignore();
  await lock();
}
