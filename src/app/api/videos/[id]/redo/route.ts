import { guarded } from '@/app/guard';
import { redo } from '@/desk/changes/changes';

export const POST = guarded<{ id: string }>(async (_request, { id }) => (await redo(id)) ?? {});
