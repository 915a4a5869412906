import { guarded } from '@/app/guard';
import { discardCut } from '@/desk/bring-cut';

export const dynamic = 'force-dynamic';

export const DELETE = guarded<{ id: string }>(async (_request, { id }) => {
  await discardCut(id);
  return undefined;
});
