import { guarded } from '@/app/guard';
import { jsonBody } from '@/app/json-body';
import { discardCut, proveStart } from '@/desk/cut/bring-cut';

export const dynamic = 'force-dynamic';

/** Proves that a file begins with what has come of a transfer that broke off. */
export const POST = guarded<{ id: string }>(async (request, { id }) => {
  await proveStart(id, await jsonBody(request));
  return undefined;
});

export const DELETE = guarded<{ id: string }>(async (_request, { id }) => {
  await discardCut(id);
  return undefined;
});
