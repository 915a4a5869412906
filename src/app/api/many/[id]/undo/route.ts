import { guarded } from '@/app/guard';
import { undoMany } from '@/desk/many/ask-many';

export const POST = guarded<{ id: string }>((_request, { id }) => undoMany(id));
