import { guarded } from '@/app/guard';
import { clashesOf } from '@/desk/release/clashes';

export const dynamic = 'force-dynamic';

/** What opens on its channels too near to it. */
export const GET = guarded<{ id: string }>((_request, { id }) => clashesOf(id));
