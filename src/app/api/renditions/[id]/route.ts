import { guarded } from '@/app/guard';
import { jsonBody } from '@/app/json-body';
import { actOnRendition } from '@/desk/rendition/act-on-rendition';

type Params = { id: string };

export const POST = guarded<Params>(async (request, { id }) => {
  await actOnRendition(id, await jsonBody(request));
  return undefined;
});
