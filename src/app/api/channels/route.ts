import { guarded } from '@/app/guard';
import { lookAtChannels } from '@/desk/views/look';

export const dynamic = 'force-dynamic';

export const GET = guarded(() => lookAtChannels());
