import { guarded } from '@/app/guard';
import { jsonBody } from '@/app/json-body';
import { putBack } from '@/desk/differences/put-back';

type Params = { id: string };

export const POST = guarded<Params>(async (request, { id }) => {
  await putBack(id, await jsonBody(request));
  return undefined;
});
