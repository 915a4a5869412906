import { guarded } from '@/app/guard';
import { redo } from '@/desk/edit-video';

export const POST = guarded<{ id: string }>(async (_request, { id }) => ({ field: await redo(id) }));
