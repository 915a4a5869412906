import { guarded } from '@/app/guard';
import { lookAtBrowserNotices, lookAtNotices } from '@/desk/views/look-at-notices';

export const dynamic = 'force-dynamic';

/** What was told, the newest first; `before` is the last that is shown already; `for=browser`: what it may say. */
export const GET = guarded(async (request) => {
  const { searchParams } = new URL(request.url);
  if (searchParams.get('for') === 'browser') return lookAtBrowserNotices();
  return lookAtNotices(searchParams.get('before') ?? undefined);
});
