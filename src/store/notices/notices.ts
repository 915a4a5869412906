import type { NoticeKind, NoticeWay } from '@/core/notices';
import { byNow } from '@/store/actor';
import { inSeconds, now } from '@/store/clock';
import type { Database } from '@/store/database';
import { newId } from '@/store/ids';
import { deleteInSteps } from '@/store/in-steps';

/** The drop that a notice is about. */
export interface OfDrop {
  videoId: string;
  dropId: string;
  channelId: string;
}

/** What else a notice is about, in words, with the path of the page on which something can be done about it. */
export interface OfHouse {
  about: string;
  page: string;
}

/** Something that a manager is told. */
export interface Notice {
  id: number;
  kind: NoticeKind;
  of: OfDrop | OfHouse;
  says: string;
  /** How many drops it stands for: what one cause has brought about is told once. */
  count: number;
  at: Date;
  seenAt: Date | undefined;
}

/** The channel that a notice is about; undefined where it is about none. */
export const channelOf = ({ of }: Pick<Notice, 'of'>): string | undefined =>
  'dropId' in of ? of.channelId : undefined;

type Row = Omit<Notice, 'seenAt' | 'of'> & { seenAt: Date | null } & { [K in keyof (OfDrop & OfHouse)]: string | null };

const columns = ['id', 'kind', 'videoId', 'dropId', 'channelId', 'about', 'page', 'says', 'count', 'at', 'seenAt'];

function fromRow({ videoId, dropId, channelId, about, page, seenAt, ...row }: Row): Notice {
  const of = videoId && dropId && channelId ? { videoId, dropId, channelId } : { about: about ?? '', page: page ?? '' };
  return { ...row, of, seenAt: seenAt ?? undefined };
}

const KEPT_SECONDS = 90 * 24 * 3600;
/** What was not told before that is nobody's trouble any more. */
const LATELY_SECONDS = 7 * 24 * 3600;

/**
 * Keeps something that a manager is told. Where another was told of for the same cause, that notice stands for this one, too,
 * and is new again.
 * @param cause tells what belongs together; undefined for what stands alone
 */
export async function addNotice(
  trx: Database,
  notice: Omit<Notice, 'id' | 'count' | 'at' | 'seenAt'>,
  cause?: string,
): Promise<Pick<Notice, 'id' | 'count'>> {
  const { kind, of, says } = notice;
  const row = { kind, ...of, cause: cause ?? null, says: says.slice(0, 1000), at: now(trx), ...byNow() };
  const [id] = await trx('notices')
    .insert(row)
    .onConflict('cause')
    // With its id, so that this is known also where it was there before.
    .merge({ id: trx.raw('LAST_INSERT_ID(id)'), count: trx.raw('?? + 1', ['count']), at: now(trx), seenAt: null });
  return trx('notices').where({ id }).first('id', 'count');
}

/** What was told, the newest first. @param before the last that was read already */
export async function noticesKept(db: Database, most: number, before?: number): Promise<Notice[]> {
  const query = db('notices').select(columns).orderBy('id', 'desc').limit(most);
  if (before !== undefined) query.where('id', '<', before);
  return ((await query) as Row[]).map(fromRow);
}

/** The notices named. */
export async function noticesById(db: Database, ids: readonly number[]): Promise<Notice[]> {
  const rows: Row[] = await db('notices')
    .select(columns)
    .whereIn('id', [...ids])
    .orderBy('id');
  return rows.map(fromRow);
}

/** How many nobody has seen, up to a hundred. */
export async function unseenNotices(db: Database): Promise<number> {
  const rows: { id: number }[] = await db('notices').whereNull('seenAt').limit(100).select('id');
  return rows.length;
}

/** Notes that everything up to one was seen. */
export async function seeNotices(db: Database, upTo: number): Promise<void> {
  await db('notices')
    .whereNull('seenAt')
    .where('id', '<=', upTo)
    .update({ seenAt: now(db) });
}

/** Forgets what was told long ago. */
export async function forgetOldNotices(db: Database): Promise<void> {
  await deleteInSteps(() => db('notices').where('at', '<', inSeconds(db, -KEPT_SECONDS)));
}

/** A notice on its way to another program. */
export interface Delivery {
  id: string;
  noticeId: number;
  tries: number;
}

/** Asks for a notice to be told on a way at an instant. */
export async function addDelivery(trx: Database, noticeId: number, way: NoticeWay, at: Date): Promise<void> {
  await trx('deliveries').insert({ id: newId(), noticeId, way, nextTryAt: at });
}

/** Whether a notice is still on its way on a way. */
export async function isOnItsWay(trx: Database, noticeId: number, way: NoticeWay): Promise<boolean> {
  return (await trx('deliveries').where({ noticeId, way }).whereNotNull('nextTryAt').first('id')) !== undefined;
}

/** Longer than a mail server or a webhook may take to answer: whoever takes a delivery has it for so long. */
const TAKEN_SECONDS = 60;

/**
 * Takes deliveries of a way that are due, and counts the try. One that is not told, nor put off, within a minute is due again:
 * so nothing is lost where a process ends in between, though it may then come twice.
 */
export async function takeDeliveries(trx: Database, way: NoticeWay, most: number): Promise<Delivery[]> {
  const rows: Delivery[] = await trx('deliveries')
    .where({ way })
    .where('nextTryAt', '<=', now(trx))
    .orderBy('nextTryAt')
    .limit(most)
    .select('id', 'noticeId', 'tries')
    .forUpdate()
    .skipLocked();
  await trx('deliveries')
    .whereIn(
      'id',
      rows.map(({ id }) => id),
    )
    .update({ nextTryAt: inSeconds(trx, TAKEN_SECONDS) })
    .increment('tries', 1);
  return rows.map((row) => ({ ...row, tries: row.tries + 1 }));
}

/** Notes that deliveries were told. */
export async function noteTold(db: Database, ids: readonly string[]): Promise<void> {
  await db('deliveries')
    .whereIn('id', [...ids])
    .update({ toldAt: now(db), nextTryAt: null, trouble: null });
}

/** Puts deliveries off that could not be told; undefined gives them up. */
export async function putOffDeliveries(
  db: Database,
  ids: readonly string[],
  seconds: number | undefined,
  trouble: string,
): Promise<void> {
  await db('deliveries')
    .whereIn('id', [...ids])
    .update({
      nextTryAt: seconds === undefined ? null : inSeconds(db, seconds),
      trouble: trouble.slice(0, 500) || null,
    });
}

/** Puts off everything that is due on a way, and was not begun: that is no try. */
export async function putOffDue(db: Database, way: NoticeWay, seconds: number): Promise<void> {
  await db('deliveries')
    .where({ way })
    .where('nextTryAt', '<=', now(db))
    .update({ nextTryAt: inSeconds(db, seconds) });
}

/** Asks for what nobody has tried to tell yet on a way to be told at another instant. */
export async function retimeDeliveries(db: Database, way: NoticeWay, at: Date): Promise<void> {
  await db('deliveries').where({ way, tries: 0 }).whereNotNull('nextTryAt').update({ nextTryAt: at });
}

/** Seconds until the next delivery of a way is due; undefined where none is on its way. */
export async function secondsToDelivery(db: Database, way: NoticeWay): Promise<number | undefined> {
  const row: { seconds: number | null } | undefined = await db('deliveries')
    .where({ way })
    .whereNotNull('nextTryAt')
    .first({ seconds: db.raw('TIMESTAMPDIFF(SECOND, UTC_TIMESTAMP(3), MIN(next_try_at))') });
  return row?.seconds === null || row === undefined ? undefined : Math.max(0, Number(row.seconds));
}

/** What could not be told on each way lately, that is still tried or was given up: how many, and what was said of one. */
export async function deliveryTrouble(db: Database): Promise<{ way: NoticeWay; count: number; trouble: string }[]> {
  const rows: { way: NoticeWay; count: number; trouble: string }[] = await db('deliveries as d')
    .join('notices as n', 'n.id', 'd.noticeId')
    .where('n.at', '>', inSeconds(db, -LATELY_SECONDS))
    .whereNull('d.toldAt')
    .whereNotNull('d.trouble')
    .groupBy('d.way')
    .select('d.way', { count: db.raw('COUNT(*)'), trouble: db.raw('MAX(??)', ['d.trouble']) });
  return rows.map((row) => ({ ...row, count: Number(row.count) }));
}
