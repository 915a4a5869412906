import { guarded } from '@/app/guard';
import { jsonBody } from '@/app/json-body';
import { actOnDrop } from '@/desk/drop/act-on-drop';

type Params = { id: string };

export const POST = guarded<Params>(async (request, { id }) => {
  await actOnDrop(id, await jsonBody(request));
  return undefined;
});
