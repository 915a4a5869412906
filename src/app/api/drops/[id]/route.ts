import { guarded } from '@/app/guard';
import { actOnDrop } from '@/desk/send';

type Params = { id: string };

export const POST = guarded<Params>(async (request, { id }) => {
  await actOnDrop(id, await request.json());
  return undefined;
});
