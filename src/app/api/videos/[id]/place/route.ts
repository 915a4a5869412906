import { guarded } from '@/app/guard';
import { nextPlace } from '@/desk/release/next-place';

export const dynamic = 'force-dynamic';

/** The next free place of its series' rhythm. */
export const GET = guarded<{ id: string }>((_request, { id }) => nextPlace(id));
