import { guarded } from '@/app/guard';
import { lookAtBoard } from '@/desk/views/look-at-board';

export const dynamic = 'force-dynamic';

export const GET = guarded((request) => lookAtBoard(Object.fromEntries(new URL(request.url).searchParams)));
