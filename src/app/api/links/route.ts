import { guarded } from '@/app/guard';
import { jsonBody } from '@/app/json-body';
import { lookAtLinks } from '@/desk/look-at-layers';
import { newShelfLink } from '@/desk/shelf';

export const dynamic = 'force-dynamic';

export const GET = guarded(() => lookAtLinks());

export const POST = guarded(async (request) => {
  await newShelfLink(await jsonBody(request));
  return undefined;
});
