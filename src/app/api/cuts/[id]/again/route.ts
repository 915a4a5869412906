import { guarded } from '@/app/guard';
import { jsonBody } from '@/app/json-body';
import { workOnCutAgain } from '@/desk/cut/work-again';

/** Has work on a cut done again that was set aside. */
export const POST = guarded<{ id: string }>(async (request, { id }) => {
  await workOnCutAgain(id, await jsonBody(request));
  return undefined;
});
