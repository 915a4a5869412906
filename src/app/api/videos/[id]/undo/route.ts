import { guarded } from '@/app/guard';
import { undo } from '@/desk/changes/changes';

export const POST = guarded<{ id: string }>(async (_request, { id }) => (await undo(id)) ?? {});
