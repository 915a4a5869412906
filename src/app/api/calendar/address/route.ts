import { guarded } from '@/app/guard';
import { calendarAddress, endCalendarAddress, renewCalendarAddress } from '@/desk/release/calendar-feed';

export const dynamic = 'force-dynamic';

/** The address at which calendar programs read what opens. */
export const GET = guarded(() => calendarAddress());

/** Makes it, or another one. */
export const POST = guarded(() => renewCalendarAddress());

/** Takes it away. */
export const DELETE = guarded(async () => {
  await endCalendarAddress();
  return undefined;
});
