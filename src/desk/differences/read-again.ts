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
import { SiteError, type SiteProfile } from '@/sites/contract';
import { actAs } from '@/store/actor';
import { databaseTime } from '@/store/clock';
import { database, transaction } from '@/store/database';
import { dropById, setDrop } from '@/store/drop/drops';
import { atSite, noteShownParts, partsOfDrop, shownOtherwise } from '@/store/drop/parts';
import type { Drop } from '@/store/drop/shape';
import { announce } from '@/store/feed';
import { renditionById } from '@/store/files/renditions';
import type { Channel } from '@/store/site/channels';
import { profileAt } from '../drop/record';
import { tell } from '../notices/tell';
import { hearOfMatches } from '../rights/hear-of-matches';
import { askedForDrop } from '../site/asked-for-drop';
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
 * @returns what nobody was told of before
 * @throws SiteError, but where the video is gone
 */
export async function readAgain(
  drop: Drop,
  channel: Channel,
  givenNow: readonly PartName[] = [],
): Promise<Difference[]> {
  const db = database();
  const adapter = site(channel.site);
  const profile = profileAt(adapter.profile, channel);
  const rendition = drop.renditionId ? await renditionById(db, drop.renditionId) : undefined;
  const there = drop.siteVideoId ?? '';
  const since = await databaseTime(db);
  const read = await askedForDrop(drop.id, channel.accountId, READS_IT, 'look', async (session) => ({
    status: await adapter.status(session, there),
    reading: await adapter.readBack(session, there),
  })).catch((error: unknown) => {
    if (!(error instanceof SiteError) || error.kind !== 'missing') throw error;
    return undefined;
  });
  const status = read?.status;
  const shown: PartsShown = read ? { ...read.reading, video: 'there' } : { video: 'gone' };
  return transaction(async (trx) => {
    const now = await dropById(trx, drop.id, true);
    // What was changed or sent meanwhile is read another time, by what it was given then.
    if (now?.state !== 'live' || now.stateSince.getTime() !== drop.stateSince.getTime()) return [];
    const before = await partsOfDrop(trx, now);
    // So is a part that it was asked to take meanwhile, or has not answered for.
    const settled = before.filter(({ givenAt, asked }) => asked === undefined && !(givenAt && givenAt > since));
    const all = givenShowing(givenParts(atSite(settled)), now, profile, rendition?.digest);
    const showing: PartsShown = read ? all : { video: 'there' };
    // Kept and told of together: a match that was kept before would be nothing new to the next reading.
    const matches = await hearOfMatches(trx, drop, status?.matches);
    const known = shownOtherwise(before);
    const { kept, fresh } = shownNow(known, showing, shown);
    await noteShownParts(trx, now, kept);
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
