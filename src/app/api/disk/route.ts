import { guarded } from '@/app/guard';
import { jsonBody } from '@/app/json-body';
import { deleteFromDisk, lookAtDisk } from '@/desk/house/disk';

export const dynamic = 'force-dynamic';

/** What takes how much of the disk. */
export const GET = guarded(() => lookAtDisk());

/** Deletes files of one video. */
export const POST = guarded(async (request) => {
  await deleteFromDisk(await jsonBody(request));
  return undefined;
});
