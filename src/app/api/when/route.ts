import { guarded } from '@/app/guard';
import { sayWhen } from '@/desk/release/say-when';

export const dynamic = 'force-dynamic';

/** What a typed time means: `text`, and the `zone` that it is said in. */
export const GET = guarded((request) => sayWhen(Object.fromEntries(new URL(request.url).searchParams)));
