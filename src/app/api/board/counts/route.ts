import { guarded } from '@/app/guard';
import { lookAtBoardCounts } from '@/desk/views/look-at-board';

export const dynamic = 'force-dynamic';

export const GET = guarded((request) => lookAtBoardCounts(Object.fromEntries(new URL(request.url).searchParams)));
