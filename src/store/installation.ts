import { database } from '@/store/database';

/** The folder in which the Kettle Drop of this database keeps its files; undefined where it was never started. */
export async function homeOfInstallation(): Promise<string | undefined> {
  const row: { home: string } | undefined = await database()('installation').first('home');
  return row?.home;
}

/** Notes where this Kettle Drop keeps its files, for whoever else uses its database. */
export async function keepHome(home: string): Promise<void> {
  await database()('installation').insert({ id: 1, home }).onConflict('id').merge(['home']);
}
