import { guarded } from '@/app/guard';
import { openTogether } from '@/desk/release/open-together';

export const dynamic = 'force-dynamic';

/** Says that a video opens on all its channels together, as soon as it is checked on them. */
export const POST = guarded<{ id: string }>(async (_request, { id }) => {
  await openTogether(id);
  return undefined;
});
