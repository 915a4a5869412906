import {
  type Difference,
  expectedOf,
  givenParts,
  type PartName,
  type PartsGiven,
  type PartsShown,
  shownNow,
} from '@/core/parts';
import { askWords, needsPerson } from '@/core/rights';
import type { Use } from '@/core/work';
import { type LookAtMany, SiteError, type SiteLook, type SiteProfile } from '@/sites/contract';
import { actAs } from '@/store/actor';
import { databaseTime } from '@/store/clock';
import { database, transaction } from '@/store/database';
import { dropById, setDrop } from '@/store/drop/drops';
import { atSite, forgetPartsOfBefore, noteShownParts, partsOfDrop, shownOtherwise } from '@/store/drop/parts';
import type { Drop } from '@/store/drop/shape';
import { announce } from '@/store/feed';
import { renditionById } from '@/store/files/renditions';
import type { Channel } from '@/store/site/channels';
import { profileAt } from '../drop/record';
import { tell } from '../notices/tell';
import { hearOfMatches } from '../rights/hear-of-matches';
import { askedForDrops } from '../site/asked-for-drop';
import { site } from '../site/session';
import { tellShown } from './tell-shown';

/** What a site is asked for then, as the page of the drop says it. */
export const READS_IT = 'read again what it shows';

/**
 * What a live video is to show: what its site was given last, whatever has been changed here since, and who sees it by the site’s
 * own word.
 */
export function givenShowing(
  given: PartsGiven,
  { confirmedTo }: Pick<Drop, 'confirmedTo'>,
  profile: SiteProfile,
  file: string | undefined,
): PartsShown {
  const { privacy: _, ...parts } = given;
  const more = { ...(confirmedTo && { privacy: { to: confirmedTo } }), ...(file !== undefined && { file }) };
  return Object.keys(given).length === 0 ? {} : expectedOf({ video: 'there', ...parts, ...more }, profile);
}

/**
 * Reads a live video again, and keeps what its site shows otherwise than it was given, its rights matches and its versions.
 * Nothing is stopped by it.
 * @param givenNow parts that it was given just now, so that nobody else has changed them
 * @param use what the request counts as
 * @returns what nobody was told of before
 * @throws SiteError, but where the video is gone
 */
export async function readAgain(
  drop: Drop,
  channel: Channel,
  givenNow: readonly PartName[] = [],
  use: Use = 'look',
): Promise<Difference[]> {
  const since = await databaseTime(database());
  const look = await askedForDrops([drop.id], channel.accountId, READS_IT, use, (session) =>
    site(channel.site).look(session, drop.siteVideoId ?? ''),
  ).catch((error: unknown) => {
    if (!(error instanceof SiteError) || error.kind !== 'missing') throw error;
    return undefined;
  });
  return keepReading(drop, channel, { look, since, givenNow });
}

/**
 * Reads live videos of one channel again in one request; otherwise like `readAgain`.
 * @param lookAtMany of its site; it is told of no more at a time than it takes
 */
export async function readManyAgain(drops: readonly Drop[], channel: Channel, lookAtMany: LookAtMany): Promise<void> {
  if (drops.length === 0) return;
  const since = await databaseTime(database());
  const ids = drops.map(({ id }) => id);
  const there = drops.flatMap(({ siteVideoId }) => siteVideoId ?? []);
  const looks = await askedForDrops(ids, channel.accountId, READS_IT, 'read', (session) =>
    lookAtMany.look(session, there),
  );
  for (const drop of drops) {
    await keepReading(drop, channel, { look: looks.get(drop.siteVideoId ?? ''), since, givenNow: [] });
  }
}

interface Reading {
  /** Undefined where the video is gone. */
  look: SiteLook | undefined;
  /** The database's time before the site was asked. */
  since: Date;
  givenNow: readonly PartName[];
}

async function keepReading(drop: Drop, channel: Channel, { look, since, givenNow }: Reading): Promise<Difference[]> {
  const profile = profileAt(site(channel.site).profile, channel);
  const rendition = drop.renditionId ? await renditionById(database(), drop.renditionId) : undefined;
  const status = look?.status;
  const shown: PartsShown = look ? { ...look.shown, video: 'there' } : { video: 'gone' };
  return transaction(async (trx) => {
    const now = await dropById(trx, drop.id, true);
    // What was changed or sent meanwhile is read another time, by what it was given then.
    if (now?.state !== 'live' || now.stateSince.getTime() !== drop.stateSince.getTime()) return [];
    const before = await partsOfDrop(trx, now);
    // So is a part that it was asked to take meanwhile, or has not answered for.
    const settled = before.filter(({ givenAt, asked }) => asked === undefined && !(givenAt && givenAt > since));
    const all = givenShowing(givenParts(atSite(settled)), now, profile, rendition?.digest);
    const showing: PartsShown = look ? all : { video: 'there' };
    // Kept and told of together: a match that was kept before would be nothing new to the next reading.
    const matches = await hearOfMatches(trx, drop, status?.matches);
    const known = shownOtherwise(before);
    const { kept, fresh } = shownNow(known, showing, shown);
    await noteShownParts(trx, now, kept);
    if (!now.former) await forgetPartsOfBefore(trx, now);
    await setDrop(trx, drop.id, {
      // What the site has not made all of yet is read again soon.
      readAt: status?.state.stage === 'processing' ? undefined : await databaseTime(trx),
      ...(status?.versions && { versions: status.versions }),
    });
    await actAs({ who: `site:${channel.site}` }, () => tellShown(trx, drop, profile.name, fresh, givenNow));
    for (const match of matches.filter(needsPerson)) {
      await tell(trx, drop, 'needs you', `Rights match with “${match.work}”: ${match.owner} ${askWords(match)}`);
    }
    const versions = JSON.stringify(status?.versions) !== JSON.stringify(now.versions) && status?.versions;
    if (fresh.length > 0 || matches.length > 0 || versions || Object.keys(kept).length !== Object.keys(known).length) {
      await announce(trx, 'video', drop.videoId);
    }
    return fresh;
  });
}
