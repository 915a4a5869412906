import { guarded } from '@/app/guard';
import { lookAtBoard } from '@/desk/look/look';

export const dynamic = 'force-dynamic';

export const GET = guarded(() => lookAtBoard());
