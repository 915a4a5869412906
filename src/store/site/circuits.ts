import { restAfter } from '@/core/work';
import { inSeconds, now } from '@/store/clock';
import { type Database, transaction } from '@/store/database';
import { announce } from '@/store/feed';

/** A site that is left alone for a while, since it has failed again and again. */
export interface RestingSite {
  site: string;
  /** When it first failed in this row. */
  since: Date;
  /** When one piece of work tries it next. */
  nextTryAt: Date;
  says: string;
}

/** How long the one that tries a site has for that, before another does. */
const TRIAL_SECONDS = 30;

/** The sites that rest now, by name. */
export async function restingSites(db: Database): Promise<RestingSite[]> {
  return db('circuits').whereNotNull('nextTryAt').orderBy('site').select('site', 'since', 'nextTryAt', 'says');
}

/** A channel of a site that rests; `over` where the rest is over and the site is to be tried. */
export interface RestingChannel {
  channelId: string;
  site: string;
  over: boolean;
}

/** The channels at sites that rest. */
export async function restingChannels(db: Database): Promise<RestingChannel[]> {
  const rows: { channelId: string; site: string; over: number }[] = await db('channels')
    .join('accounts', 'accounts.id', 'channels.accountId')
    .join('circuits', 'circuits.site', 'accounts.site')
    .whereNotNull('circuits.nextTryAt')
    .select({ channelId: 'channels.id', site: 'accounts.site' })
    .select({ over: db.raw('?? <= UTC_TIMESTAMP(3)', ['circuits.nextTryAt']) });
  return rows.map((row) => ({ ...row, over: row.over === 1 }));
}

/**
 * Takes it on to try a site whose rest is over. Whether it is ours is returned: then nobody else tries it until that has gone
 * well, or the time for it is over.
 */
export async function takeTrial(db: Database, site: string): Promise<boolean> {
  const taken = await db('circuits')
    .where({ site })
    .where('nextTryAt', '<=', now(db))
    .update({ nextTryAt: inSeconds(db, TRIAL_SECONDS) });
  return taken > 0;
}

/**
 * Notes that a site has failed; after some in a row it rests.
 * @param chance from 0 up to 1: spreads the rests of many
 * @param retryAfter seconds, where the site itself says how long
 */
export async function noteSiteFailed(site: string, says: string, chance: number, retryAfter?: number): Promise<void> {
  await transaction(async (trx) => {
    const fresh = { site, failures: 0, since: now(trx), says: '' };
    await trx('circuits').insert(fresh).onConflict('site').ignore();
    const row: { failures: number } = await trx('circuits').where({ site }).forUpdate().first('failures');
    const failures = row.failures + 1;
    const rest = restAfter(failures, chance, retryAfter);
    const nextTryAt = rest === undefined ? null : inSeconds(trx, rest);
    await trx('circuits')
      .where({ site })
      .update({ failures, nextTryAt, says: says.slice(0, 500) });
    if (nextTryAt) await announce(trx, 'sites', site);
  });
}

/** Notes that a site has answered as it should: it rests no more. */
export async function noteSiteWell(db: Database, site: string): Promise<void> {
  const rested: { nextTryAt: Date | null } | undefined = await db('circuits').where({ site }).first('nextTryAt');
  if (!rested) return;
  await db('circuits').where({ site }).delete();
  if (rested.nextTryAt) await announce(db, 'sites', site);
}

/** Has a resting site tried at once. */
export async function trySiteNow(db: Database, site: string): Promise<void> {
  await db('circuits')
    .where({ site })
    .whereNotNull('nextTryAt')
    .update({ nextTryAt: now(db) });
  await announce(db, 'sites', site);
}
