import { migrate } from '@/store/database';

/** Makes the database where it is missing and brings it to its newest form. */
export async function migrateDatabase(): Promise<void> {
  await migrate();
}
