import { guarded } from '@/app/guard';
import { actOnDrop, setPlaylists } from '@/desk/send';

type Params = { id: string };

export const POST = guarded<Params>(async (request, { id }) => {
  await actOnDrop(id, await request.json());
  return undefined;
});

export const PUT = guarded<Params>(async (request, { id }) => {
  await setPlaylists(id, await request.json());
  return undefined;
});
