import { guarded } from '@/app/guard';
import { goOnMany } from '@/desk/many/ask-many';

export const POST = guarded<{ id: string }>(async (_request, { id }) => {
  await goOnMany(id);
  return undefined;
});
