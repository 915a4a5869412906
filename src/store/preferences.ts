import type { Database } from '@/store/database';

/** What a manager may have answered once and for all. */
export type Preference = 'date order';

/** What was answered; undefined where it was not asked yet. */
export async function preference(db: Database, name: Preference): Promise<string | undefined> {
  const row: { value: string } | undefined = await db('preferences').where({ name }).first('value');
  return row?.value;
}

/** Keeps an answer, in the place of the former one. */
export async function keepPreference(db: Database, name: Preference, value: string): Promise<void> {
  await db('preferences').insert({ name, value }).onConflict('name').merge(['value']);
}
