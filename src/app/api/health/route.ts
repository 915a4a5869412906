import { guarded } from '@/app/guard';
import { lookAtHealth } from '@/desk/views/health';

export const dynamic = 'force-dynamic';

export const GET = guarded(async () => {
  const health = await lookAtHealth();
  return Response.json(health, { status: health.well ? 200 : 503 });
});
