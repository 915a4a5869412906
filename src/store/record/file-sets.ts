import type { EncodeSettings, FileSet } from '@/core/renditions';
import { type Database, fromJson, toJson } from '@/store/database';

/** File settings that a person has given a name; they belong to everyone. */
export type OwnFileSet = Pick<FileSet, 'id' | 'name' | 'settings'>;

/** Every set that was made, by name. */
export async function allFileSets(db: Database): Promise<FileSet[]> {
  const rows: { id: string; name: string; settings: string }[] = await db('fileSets')
    .select('id', 'name', 'settings')
    .orderBy('name');
  return rows.map(({ settings, ...row }) => ({ ...row, says: '', settings: fromJson(settings) as EncodeSettings }));
}

/** Keeps a set, new or in the place of the one with its id. */
export async function putFileSet(db: Database, { id, name, settings }: OwnFileSet): Promise<void> {
  await db('fileSets')
    .insert({ id, name, settings: toJson(settings), updatedAt: new Date() })
    .onConflict('id')
    .merge(['name', 'settings', 'updatedAt']);
}

export async function deleteFileSet(db: Database, id: string): Promise<void> {
  await db('fileSets').where({ id }).delete();
}
