import { guarded } from '@/app/guard';
import { jsonBody } from '@/app/json-body';
import { keepDateOrder, sayWhen } from '@/desk/release/say-when';

export const dynamic = 'force-dynamic';

/** What a typed time means: `text`, and the `zone` that it is said in. */
export const GET = guarded((request) => sayWhen(Object.fromEntries(new URL(request.url).searchParams)));

/** Which number comes first in a date such as 12/04 from now on: `order`. */
export const PUT = guarded(async (request) => {
  await keepDateOrder(await jsonBody(request));
  return undefined;
});
