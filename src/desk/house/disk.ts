import { object, string } from 'yup';
import { database, transaction } from '@/store/database';
import { allOnDisk, type DiskUse, largestOnDisk } from '@/store/files/disk-use';
import { files } from '@/store/files/folder';
import { removeAskedFiles } from '@/store/files/removals';
import { idShape } from '../id-shape';
import { log } from '../log';
import { deleteFilesOf, deleteMadeFilesOf } from './delete-files';

/** So many videos are listed: those that take most. */
const MOST_LISTED = 50;

/** What the disk has, and what takes how much of it; in bytes. */
export interface DiskView {
  free: number;
  files: number;
  made: number;
  videos: number;
  largest: (Pick<DiskUse, 'videoId' | 'title' | 'files' | 'made'> & {
    /** Whether its own files may go: everything of it is live. */
    mayGo: boolean;
  })[];
}

/** Looks at the disk: what is free, and the videos that take most of it. */
export async function lookAtDisk(): Promise<DiskView> {
  const db = database();
  const [free, all, largest] = await Promise.all([files().free(), allOnDisk(db), largestOnDisk(db, MOST_LISTED)]);
  return {
    free,
    ...all,
    largest: largest.map(({ drops, notLive, ...use }) => ({
      ...use,
      mayGo: use.files > 0 && drops > 0 && notLive === 0,
    })),
  };
}

const actShape = object({
  videoId: idShape().required(),
  what: string()
    .oneOf(['made', 'files'] as const)
    .required(),
}).noUnknown();

/** Deletes what a video has on the disk: files that were made for sites, or its own. @throws DeskError where they are needed */
export async function deleteFromDisk(input: unknown): Promise<void> {
  const { videoId, what } = await actShape.validate(input, { stripUnknown: false });
  await transaction((trx) => (what === 'made' ? deleteMadeFilesOf(trx, videoId) : deleteFilesOf(trx, videoId)));
  await removeAskedFiles(database());
  log.info({ video: videoId, what }, 'deleted from the disk');
}
