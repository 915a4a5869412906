import { guarded } from '@/app/guard';
import { bodyBytes } from '@/app/json-body';
import { LARGEST_CALENDAR_FILE, timesFromFile } from '@/desk/release/times-from-file';

/** What a calendar file says of when videos open; `zone` is that of times that name none. */
export const POST = guarded(async (request) => {
  const zone = new URL(request.url).searchParams.get('zone');
  return timesFromFile(Buffer.from(await bodyBytes(request, LARGEST_CALENDAR_FILE)), zone);
});
