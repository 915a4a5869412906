import { guarded } from '@/app/guard';
import { undo } from '@/desk/changes';

export const POST = guarded<{ id: string }>(async (_request, { id }) => ({ field: await undo(id) }));
