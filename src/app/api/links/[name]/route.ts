import { guarded } from '@/app/guard';
import { jsonBody } from '@/app/json-body';
import { editShelfLink, removeShelfLink } from '@/desk/defaults/shelf';

type Params = { name: string };

export const PATCH = guarded<Params>(async (request, { name }) => {
  await editShelfLink(name, await jsonBody(request));
  return undefined;
});

export const DELETE = guarded<Params>(async (_request, { name }) => {
  await removeShelfLink(name);
  return undefined;
});
