import { guarded } from '@/app/guard';
import { undo } from '@/desk/edit-video';

export const POST = guarded<{ id: string }>(async (_request, { id }) => ({ field: await undo(id) }));
