import { guarded } from '@/app/guard';
import { jsonBody } from '@/app/json-body';
import { seeAll } from '@/desk/views/look-at-notices';

export const POST = guarded(async (request) => {
  await seeAll(await jsonBody(request));
  return undefined;
});
