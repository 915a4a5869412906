import { guarded } from '@/app/guard';
import { jsonBody } from '@/app/json-body';
import { noteWaiting } from '@/desk/cut/bring-cut';

/** A page says that files that are on their way are still its own. */
export const POST = guarded(async (request) => {
  await noteWaiting(await jsonBody(request));
  return undefined;
});
