import { guarded } from '@/app/guard';
import { editShelfLink, removeShelfLink } from '@/desk/shelf';

type Params = { name: string };

export const PATCH = guarded<Params>(async (request, { name }) => {
  await editShelfLink(name, await request.json());
  return undefined;
});

export const DELETE = guarded<Params>(async (_request, { name }) => {
  await removeShelfLink(name);
  return undefined;
});
