import { guarded } from '@/app/guard';
import { undoMany } from '@/desk/many/ask-many';

export const POST = guarded<{ id: string }>(async (_request, { id }) => {
  await undoMany(id);
  return {};
});
