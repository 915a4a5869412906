import { guarded } from '@/app/guard';
import { jsonBody } from '@/app/json-body';
import { discardCut, proveStart } from '@/desk/cut/bring-cut';
import { lookAtCut } from '@/desk/views/look';

export const dynamic = 'force-dynamic';

/** How far a cut is. */
export const GET = guarded<{ id: string }>((_request, { id }) => lookAtCut(id));

/** Proves that a file begins with what has come of a transfer that broke off. */
export const POST = guarded<{ id: string }>(async (request, { id }) => {
  await proveStart(id, await jsonBody(request));
  return undefined;
});

export const DELETE = guarded<{ id: string }>(async (_request, { id }) => {
  await discardCut(id);
  return undefined;
});
