import { createHash } from 'node:crypto';
import { type NoticeKind, type NoticeWay, tellAt, tells } from '@/core/notices';
import { databaseTime } from '@/store/clock';
import type { Database } from '@/store/database';
import type { Drop } from '@/store/drop/shape';
import { announce } from '@/store/feed';
import { noticeWays } from '@/store/notices/notice-settings';
import { addDelivery, addNotice, channelOf, isOnItsWay, type Notice, type OfHouse } from '@/store/notices/notices';
import { hastenJob } from '@/store/queue/jobs';

/** Ways on which the worker tells; the browser hears of it by the page. */
const BY_WORKER: readonly NoticeWay[] = ['email', 'webhook'];

/** What joins a notice that was told already goes out so much later, with all that have joined it by then. */
const GATHERED_MILLISECONDS = 60_000;

/** What belongs together: the same cause about one thing within the hour. */
const causeOf = (kind: NoticeKind, about: string, why: string, at: Date): string =>
  createHash('sha256')
    .update(JSON.stringify([kind, about, why, at.toISOString().slice(0, 13)]))
    .digest('hex');

/**
 * Tells a manager of something, in the transaction in which it happens: in the page at once, and by mail and webhook as it is
 * set. Nothing is sent from here, so that nothing waits for a server.
 * @param sharing what it comes of that stops other drops of its channel, too: then they are told of as one
 */
export async function tell(
  trx: Database,
  drop: Pick<Drop, 'id' | 'videoId' | 'channelId'>,
  kind: NoticeKind,
  says: string,
  sharing?: string,
): Promise<void> {
  const { id: dropId, videoId, channelId } = drop;
  const at = await databaseTime(trx);
  const cause = sharing === undefined ? undefined : causeOf(kind, channelId, sharing, at);
  await tellOf(trx, { kind, of: { dropId, videoId, channelId }, says }, at, cause);
}

/**
 * Tells a manager of something that is about no drop, such as the disk. The same again within the hour is told once.
 * @param of what it is about, with the path of the page on which something can be done about it
 */
export async function tellOfHouse(trx: Database, of: OfHouse, kind: NoticeKind, says: string): Promise<void> {
  const at = await databaseTime(trx);
  await tellOf(trx, { kind, of, says }, at, causeOf(kind, of.about, says, at));
}

async function tellOf(
  trx: Database,
  notice: Pick<Notice, 'kind' | 'of' | 'says'>,
  at: Date,
  cause: string | undefined,
): Promise<void> {
  const { id, count } = await addNotice(trx, notice, cause);
  const settings = await noticeWays(trx);
  for (const way of BY_WORKER) {
    if (!tells(settings, way, { kind: notice.kind, channelId: channelOf(notice) })) continue;
    if (count > 1 && (await isOnItsWay(trx, id, way))) continue;
    const gathered = new Date(at.getTime() + (count > 1 ? GATHERED_MILLISECONDS : 0));
    await addDelivery(trx, id, way, tellAt(gathered, settings, way));
    await hastenJob(trx, 'tell', way);
  }
  await announce(trx, 'notices', String(id));
}
