import { guarded } from '@/app/guard';
import { lookAtMeasures } from '@/desk/views/look';

export const dynamic = 'force-dynamic';

/** Sound and shots of a cut; empty until they are known. */
export const GET = guarded<{ id: string }>((_request, { id }) => lookAtMeasures(id));
