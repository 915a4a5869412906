import { guarded } from '@/app/guard';
import { jsonBody } from '@/app/json-body';
import { actOnDrop } from '@/desk/actions/act-on-drop';
import { lookAtDrop } from '@/desk/views/look-at-drop';

export const dynamic = 'force-dynamic';

type Params = { id: string };

export const GET = guarded<Params>(async (_request, { id }) => lookAtDrop(id));

export const POST = guarded<Params>(async (request, { id }) => {
  await actOnDrop(id, await jsonBody(request));
  return undefined;
});
