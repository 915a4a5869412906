import { inSeconds, now } from '@/store/clock';
import type { Database } from '@/store/database';

/** Notes a person's word to open a drop that is held, which takes effect in so many seconds. Whether it was held is returned. */
export async function giveWord(db: Database, id: string, seconds: number): Promise<boolean> {
  const at = inSeconds(db, seconds);
  const word = { openAsked: true, wordAt: at, nextTryAt: at, updatedAt: now(db), leaseOwner: null, leaseUntil: null };
  return (await db('drops').where({ id, state: 'held', openAsked: false }).update(word)) > 0;
}

/** Takes a person's word back while it has not taken effect. Whether it was in time is returned. */
export async function takeWordBack(db: Database, id: string): Promise<boolean> {
  const none = { openAsked: false, wordAt: null, nextTryAt: now(db), updatedAt: now(db) };
  const held = db('drops').where({ id, state: 'held', openAsked: true });
  return (await held.update({ ...none, leaseOwner: null, leaseUntil: null })) > 0;
}

/**
 * The same where its moment has come, while the site has not been asked yet: whoever has the drop in hand looks at this before
 * it asks. A better file goes up by no such word.
 */
export async function takeWordBackAtMoment(db: Database, id: string): Promise<boolean> {
  const due = db('drops').where({ id, state: 'opening', openAsked: true }).whereNull('former');
  return (await due.update({ openAsked: false, updatedAt: now(db) })) > 0;
}

/**
 * Whether a drop of a video is being opened at this moment, so that the site may be showing it already. Where the site has put it
 * off, another release can be set: then the site is asked to close it first.
 */
export async function isOpeningNow(db: Database, videoId: string): Promise<boolean> {
  const rows = await db('drops')
    .where({ videoId, state: 'opening' })
    .whereNull('putOffSince')
    .whereNotNull('openedTo')
    .whereNot({ openedTo: 'private' })
    // What has opened before is only given other words.
    .where((opens) => opens.whereNotNull('releasedFor').orWhere({ openAsked: true }).orWhereNull('openedAt'));
  return rows.length > 0;
}
