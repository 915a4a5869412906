import { guarded } from '@/app/guard';
import { lookAtMeasuring, stopMeasuring } from '@/desk/cut/measuring';

export const dynamic = 'force-dynamic';

/** How far the measuring of a cut is; empty where nothing is told. */
export const GET = guarded<{ id: string }>((_request, { id }) => lookAtMeasuring(id));

/** Stops it. */
export const DELETE = guarded<{ id: string }>(async (_request, { id }) => {
  await stopMeasuring(id);
  return undefined;
});
