import { files } from '@/store/files/folder';
import type { Cut } from '@/store/record/cuts';
import { DeskError } from './desk-error';

/** What is said of a file that was deleted here once it was live. */
export const FILE_GONE = 'The file was deleted here once it was live';

/** Where a cut lies on this disk. @throws DeskError where it was deleted */
export function pathOfCut({ fileKey, goneAt }: Pick<Cut, 'fileKey' | 'goneAt'>): string {
  if (goneAt) throw new DeskError('not now', `${FILE_GONE}. Add it again first.`);
  return files().localPath(fileKey);
}
