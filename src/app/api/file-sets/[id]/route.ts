import { guarded } from '@/app/guard';
import { jsonBody } from '@/app/json-body';
import { editFileSet, removeFileSet } from '@/desk/defaults/file-sets';

type Params = { id: string };

export const PATCH = guarded<Params>(async (request, { id }) => {
  await editFileSet(id, await jsonBody(request));
  return undefined;
});

export const DELETE = guarded<Params>(async (_request, { id }) => {
  await removeFileSet(id);
  return undefined;
});
