import { guarded } from '@/app/guard';
import { lookAtBoardIds } from '@/desk/views/look-at-board';

export const dynamic = 'force-dynamic';

export const GET = guarded((request) => lookAtBoardIds(Object.fromEntries(new URL(request.url).searchParams)));
