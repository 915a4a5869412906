import { guarded } from '@/app/guard';
import { jsonBody } from '@/app/json-body';
import { limitLine, lookAtLineLimits } from '@/desk/line/line-limits';

export const dynamic = 'force-dynamic';

/** The limits of the line. */
export const GET = guarded(() => lookAtLineLimits());

/** Sets one of them. */
export const PUT = guarded(async (request) => {
  await limitLine(await jsonBody(request));
  return undefined;
});
