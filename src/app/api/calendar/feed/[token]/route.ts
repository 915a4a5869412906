import { guarded } from '@/app/guard';
import { calendarFeed } from '@/desk/release/calendar-feed';

export const dynamic = 'force-dynamic';

/** What opens, for calendar programs; the last part of the address is the secret. */
export const GET = guarded<{ token: string }>(async (_request, { token }) => {
  const headers = { 'content-type': 'text/calendar; charset=utf-8', 'cache-control': 'no-store' };
  return new Response(await calendarFeed(token), { headers });
});
