import { guarded } from '@/app/guard';
import { lookAtMissing } from '@/desk/views/look-at-board';

export const dynamic = 'force-dynamic';

export const GET = guarded((request) => lookAtMissing(Object.fromEntries(new URL(request.url).searchParams)));
