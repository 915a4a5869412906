import { guarded } from '@/app/guard';
import { lookAtUnseen } from '@/desk/views/look-at-notices';

export const dynamic = 'force-dynamic';

export const GET = guarded(async () => lookAtUnseen());
