import { guarded } from '@/app/guard';
import { jsonBody } from '@/app/json-body';
import { setNotices } from '@/desk/notices/set-notices';
import { lookAtNoticeSettings } from '@/desk/views/look-at-notices';

export const dynamic = 'force-dynamic';

export const GET = guarded(async () => lookAtNoticeSettings());

export const PATCH = guarded(async (request) => {
  await setNotices(await jsonBody(request));
  return undefined;
});
