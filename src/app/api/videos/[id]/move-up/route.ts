import { guarded } from '@/app/guard';
import { jsonBody } from '@/app/json-body';
import { moveUp } from '@/desk/defaults/move-up';

type Params = { id: string };

export const POST = guarded<Params>(async (request, { id }) => ({
  reached: await moveUp(id, await jsonBody(request)),
}));
