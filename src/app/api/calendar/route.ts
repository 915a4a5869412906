import { guarded } from '@/app/guard';
import { lookAtCalendar } from '@/desk/views/look-at-calendar';

export const dynamic = 'force-dynamic';

/** What goes out and went out between two instants. */
export const GET = guarded((request) => lookAtCalendar(Object.fromEntries(new URL(request.url).searchParams)));
