import { guarded } from '@/app/guard';
import { pauseMany } from '@/desk/many/ask-many';

export const POST = guarded<{ id: string }>(async (_request, { id }) => {
  await pauseMany(id);
  return undefined;
});
