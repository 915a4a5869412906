import { guarded } from '@/app/guard';
import { jsonBody } from '@/app/json-body';
import { lookAtNoticeSettings } from '@/desk/notices/look-at-notices';
import { setNotices } from '@/desk/notices/set-notices';

export const dynamic = 'force-dynamic';

export const GET = guarded(async () => lookAtNoticeSettings());

export const PATCH = guarded(async (request) => {
  await setNotices(await jsonBody(request));
  return undefined;
});
