import type { Database } from '../database';
import { files } from './folder';

/**
 * Asks for files to be taken off the disk, in the transaction in which what leads to them goes: so none is taken away that
 * something still leads to, and none stays behind where this process ends in between.
 */
export async function askToRemoveFiles(trx: Database, keys: readonly string[]): Promise<void> {
  if (keys.length === 0) return;
  await trx('filesToRemove')
    .insert(keys.map((fileKey) => ({ fileKey })))
    .onConflict('fileKey')
    .ignore();
}

/** Takes the files off the disk that were asked for; called once the transaction holds. */
export async function removeAskedFiles(db: Database): Promise<void> {
  const rows: { fileKey: string }[] = await db('filesToRemove').select('fileKey');
  for (const { fileKey } of rows) {
    await files().remove(fileKey);
    await db('filesToRemove').where({ fileKey }).delete();
  }
}
