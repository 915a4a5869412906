import { log } from '@/desk/log';
import { tellOfHouse } from '@/desk/notices/tell';
import { transaction } from '@/store/database';

const DISK = { about: 'The disk', page: '/series#disk' };

/** Errors of the system that say that there is no room. */
export const isFullDisk = (error: unknown): boolean =>
  ['ENOSPC', 'EDQUOT'].includes(String((error as { code?: unknown } | undefined)?.code));

/** Tells that there is no room for something, once an hour at the most. Where there is none for the notice either, the log says so. */
export async function tellFullDisk(): Promise<void> {
  const says =
    'It is full. What waits for room goes on by itself once there is some. Delete files under “On this disk”.';
  await transaction((trx) => tellOfHouse(trx, DISK, 'needs you', says)).catch((error: Error) =>
    log.error({ why: error.message }, 'that the disk is full could not be told'),
  );
}
