import { guarded } from '@/app/guard';
import { lookAtRestingSites } from '@/desk/site/resting-sites';

export const dynamic = 'force-dynamic';

/** The sites that rest, since they have failed again and again. */
export const GET = guarded(() => lookAtRestingSites());
