import { migrate } from '@/store/database';
import { keepHome } from '@/store/installation';
import { settings } from '@/store/settings';

/** Makes the database where it is missing, brings it to its newest form, and notes whose it is. */
export async function migrateDatabase(): Promise<void> {
  await migrate();
  await keepHome(settings().home);
}
