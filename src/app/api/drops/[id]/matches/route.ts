import { guarded } from '@/app/guard';
import { jsonBody } from '@/app/json-body';
import { settleMatches } from '@/desk/rights/settle-matches';

type Params = { id: string };

export const POST = guarded<Params>(async (request, { id }) => {
  await settleMatches(id, await jsonBody(request));
  return undefined;
});
