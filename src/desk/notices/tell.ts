import { type NoticeKind, type NoticeWay, tellAt, tells } from '@/core/notices';
import { databaseTime } from '@/store/clock';
import type { Database } from '@/store/database';
import type { Drop } from '@/store/drops';
import { announce } from '@/store/feed';
import { hastenJob } from '@/store/jobs';
import { noticeWays } from '@/store/notice-settings';
import { addDelivery, addNotice } from '@/store/notices';

/** Ways on which the worker tells; the browser hears of it by the page. */
const BY_WORKER: readonly NoticeWay[] = ['email', 'webhook'];

/**
 * Tells a manager of something, in the transaction in which it happens: in the page at once, and by mail and webhook as it is
 * set. Nothing is sent from here, so that nothing waits for a server.
 */
export async function tell(
  trx: Database,
  drop: Pick<Drop, 'id' | 'videoId' | 'channelId'>,
  kind: NoticeKind,
  says: string,
): Promise<void> {
  const { id: dropId, videoId, channelId } = drop;
  const id = await addNotice(trx, { kind, dropId, videoId, channelId, says });
  const settings = await noticeWays(trx);
  const at = await databaseTime(trx);
  for (const way of BY_WORKER) {
    if (!tells(settings, way, { kind, channelId })) continue;
    await addDelivery(trx, id, way, tellAt(at, settings, way));
    await hastenJob(trx, 'tell', way);
  }
  await announce(trx, 'notices', String(id));
}
