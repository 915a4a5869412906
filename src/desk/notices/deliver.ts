import { type NoticeWay, nextTell, tellAt } from '@/core/notices';
import { database, transaction } from '@/store/database';
import { noticeSettings } from '@/store/notices/notice-settings';
import {
  type Delivery,
  noteTold,
  noticesById,
  putOffDeliveries,
  putOffDue,
  takeDeliveries,
} from '@/store/notices/notices';
import { log } from '../log';
import { mailOf, sendMail } from './mail';
import { noticesToTell } from './notice-to-tell';
import { NotTaken, postNotice } from './webhook';

const MOST_IN_MAIL = 50;
const MOST_POSTS = 20;

/** Tells what is due on a way. What could not be told is put off, later and later. */
export async function deliverDue(way: NoticeWay): Promise<void> {
  const db = database();
  const kept = await noticeSettings(db);
  // What was put off, such as by a server that was away, may be due in quiet hours.
  const wait = (tellAt(new Date(), { ...kept.settings, digest: 'each' }, way).getTime() - Date.now()) / 1000;
  if (wait > 1) return putOffDue(db, way, wait);
  const due = await transaction((trx) => takeDeliveries(trx, way, way === 'email' ? MOST_IN_MAIL : MOST_POSTS));
  if (due.length === 0) return;
  const ids = due.map(({ id }) => id);
  if (!kept.settings[way].on) return putOffDeliveries(db, ids, undefined, '');
  const notices = new Map(
    (await noticesById(db, [...new Set(due.map(({ noticeId }) => noticeId))])).map((each) => [each.id, each]),
  );
  // What its video took along meanwhile is told to nobody.
  const left = due.filter(({ noticeId }) => notices.has(noticeId));
  const told = await noticesToTell(
    db,
    left.flatMap(({ noticeId }) => notices.get(noticeId) ?? []),
  );
  if (left.length === 0) return;
  if (way === 'email') {
    return trying(left, () => sendMail(kept.settings.email, kept.password, mailOf(told), ids[0] ?? ''));
  }
  for (const [index, delivery] of left.entries()) {
    const notice = told[index];
    if (!notice) continue;
    await trying([delivery], () => postNotice(kept.settings.webhook.address, kept.secret ?? '', delivery.id, notice));
  }
}

async function trying(due: readonly Delivery[], tell: () => Promise<void>): Promise<void> {
  const db = database();
  const ids = due.map(({ id }) => id);
  try {
    await tell();
    await noteTold(db, ids);
  } catch (error) {
    const { message } = error as Error;
    // Each by its own tries: one that was tried often takes no other along where it is given up.
    for (const tries of new Set(due.map((each) => each.tries))) {
      const seconds = nextTell(tries, error instanceof NotTaken ? error.retryAfter : undefined);
      const alike = due.filter((each) => each.tries === tries).map(({ id }) => id);
      log.warn({ why: message, tries, seconds, notices: alike.length }, 'notices were not told');
      await putOffDeliveries(db, alike, seconds, message);
    }
  }
}
