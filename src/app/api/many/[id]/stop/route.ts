import { guarded } from '@/app/guard';
import { stopMany } from '@/desk/many/ask-many';

export const POST = guarded<{ id: string }>((_request, { id }) => stopMany(id));
