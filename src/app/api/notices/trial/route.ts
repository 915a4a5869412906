import { guarded } from '@/app/guard';
import { jsonBody } from '@/app/json-body';
import { tryNotice } from '@/desk/notices/set-notices';

export const POST = guarded(async (request) => {
  await tryNotice(await jsonBody(request));
  return undefined;
});
