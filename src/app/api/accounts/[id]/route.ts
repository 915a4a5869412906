import { guarded } from '@/app/guard';
import { disconnect } from '@/desk/account/connect';

export const DELETE = guarded<{ id: string }>(async (_request, { id }) => {
  await disconnect(id);
  return undefined;
});
