import { guarded } from '@/app/guard';
import { jsonBody } from '@/app/json-body';
import { newShelfLink } from '@/desk/defaults/shelf';
import { lookAtLinks } from '@/desk/views/look-at-layers';

export const dynamic = 'force-dynamic';

export const GET = guarded(() => lookAtLinks());

export const POST = guarded(async (request) => {
  await newShelfLink(await jsonBody(request));
  return undefined;
});
