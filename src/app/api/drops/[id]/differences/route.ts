import { guarded } from '@/app/guard';
import { jsonBody } from '@/app/json-body';
import { settleDifferences } from '@/desk/actions/settle-differences';

type Params = { id: string };

export const POST = guarded<Params>(async (request, { id }) => {
  await settleDifferences(id, await jsonBody(request));
  return undefined;
});
