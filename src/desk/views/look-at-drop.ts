import { reviewExpected, STOPS, type Stop, stopsBehind } from '@/core/drop';
import {
  type ChangedField,
  changedFields,
  givenParts,
  mayTakeOver,
  PARTS,
  type PartsGiven,
  type ShownDifference,
  shownDifferences,
  undecided,
} from '@/core/parts';
import type { SiteProfile } from '@/sites/contract';
import { database } from '@/store/database';
import { dropById } from '@/store/drop/drops';
import { type DropEvent, eventsOf } from '@/store/drop/events';
import { atSite, givenTo, type KeptPart, partsOfDrop, shownOtherwise } from '@/store/drop/parts';
import { type Review, reviewSeconds, reviewsOf } from '@/store/drop/reviews';
import { matchesOf } from '@/store/drop/rights-matches';
import type { Drop } from '@/store/drop/shape';
import { requestsOf } from '@/store/drop/site-requests';
import { found } from '../desk-error';
import { type GivenBefore, givenBefore } from '../differences/given-before';
import { givenShowing } from '../differences/read-again';
import { recordOf } from '../drop/record';
import { site } from '../site/session';
import type { DropPageView, GivenView, ReviewView } from './drop-page';
import { lookAtSheet } from './look-at-sheet';
import { matchView } from './match-view';

/** The moves that lead to each stop, as the history names them. */
const LEADS_TO: Record<Stop, readonly string[]> = {
  packed: ['packed'],
  landed: ['landed'],
  settled: ['settled'],
  cleared: ['cleared'],
  proofed: ['proofedAndHeld', 'proofedAndOpening', 'acceptAndHold', 'acceptAndOpen'],
  live: ['opened', 'closed'],
};
const BEGINS: readonly string[] = ['send', 'sendAnew'];

/** When each stop was passed, since the drop was sent last. */
function stopTimes(drop: Drop, events: readonly DropEvent[]): DropPageView['stops'] {
  const begun = events.findLastIndex(({ kind }) => BEGINS.includes(kind));
  const since = events.slice(Math.max(0, begun));
  const behind = stopsBehind(drop.state, drop.snag);
  return STOPS.map((stop, index) => {
    const passed = index < behind ? since.findLast(({ kind }) => LEADS_TO[stop].includes(kind)) : undefined;
    // Where its words were changed since, it was live before.
    const at = stop === 'live' && passed ? (drop.openedAt ?? drop.liveAt ?? passed.at) : passed?.at;
    return { stop, at: at?.toISOString() };
  });
}

type Names = (id: string) => string;

const partsIn = (text: string | undefined) => (text === undefined ? {} : (JSON.parse(text) as PartsGiven));

function changesBetween(was: PartsGiven | undefined, is: PartsGiven, names: Names): ChangedField[] {
  return was ? changedFields(was, is, names) : [];
}

const reviewViews = (reviews: readonly Review[], names: Names): ReviewView[] =>
  reviews.map(({ id, handedInAt, endedAt, approved, reason, remedy, given }, index) => ({
    ...{ id, approved, reason, remedy },
    handedInAt: handedInAt.toISOString(),
    endedAt: endedAt?.toISOString(),
    changes: changesBetween(index > 0 ? partsIn(reviews[index - 1]?.given) : undefined, partsIn(given), names),
  }));

/** @param given the newest first */
const givenViews = (given: readonly GivenBefore[], names: Names): GivenView[] =>
  given.map(({ id, at, parts }, index) => ({
    ...{ id, at: at.toISOString(), now: index === 0 },
    changes: changesBetween(given[index + 1]?.parts, parts, names),
  }));

/** What the site shows otherwise than it was meant. */
function differencesAt(drop: Drop, parts: readonly KeptPart[], profile: SiteProfile): ShownDifference[] {
  if (drop.state === 'snag') return drop.snag?.differences ?? [];
  if (drop.state !== 'live') return [];
  const shown = shownOtherwise(parts);
  // Of a file, only what the site shows is kept here.
  const file = shown.file && { file: '' };
  return shownDifferences(shown, { ...givenShowing(givenParts(atSite(parts)), drop, profile, undefined), ...file });
}

/** Parts that could not be given and are tried again. */
const failedViews = (parts: readonly KeptPart[]): DropPageView['failed'] =>
  parts.flatMap(({ part, failed, retryAt }) =>
    failed === undefined ? [] : [{ part: PARTS[part].label, why: failed, retryAt: retryAt?.toISOString() }],
  );

const escaped = (text: string) => text.replace(/&/g, '&amp;').replace(/"/g, '&quot;').replace(/</g, '&lt;');

/** HTML that shows a video on another page. */
function embedOf(link: string | undefined, title: string, { embeds }: SiteProfile['abilities'], allowed: boolean) {
  if (!link || !embeds || !allowed) return undefined;
  return `<iframe src="${escaped(link)}" title="${escaped(title)}" width="640" height="360" allowfullscreen></iframe>`;
}

/** Everything that the page of one drop shows. @throws DeskError where there is no such drop */
export async function lookAtDrop(dropId: string): Promise<DropPageView> {
  const db = database();
  const drop = found(await dropById(db, dropId), 'drop');
  const [sheet, record, events, matches, reviews, given, requests, parts] = await Promise.all([
    lookAtSheet(drop.videoId),
    recordOf(db, drop.videoId),
    eventsOf(db, [dropId]),
    matchesOf(db, [dropId]),
    reviewsOf(db, [dropId]),
    givenTo(db, dropId),
    requestsOf(db, dropId),
    partsOfDrop(db, drop),
  ]);
  const channel = found(
    sheet.channels.find(({ id }) => id === drop.channelId),
    'channel',
  );
  const { profile } = site(channel.site);
  const { abilities } = profile;
  const names: Names = (id) => channel.playlists.find((playlist) => playlist.id === id)?.title ?? id;
  const review = reviews.find(({ endedAt }) => !endedAt);
  const expected =
    review && reviewExpected(review.handedInAt, abilities.reviewHours, await reviewSeconds(db, channel.site));
  const differences = differencesAt(drop, parts, profile);
  const open = undecided(differences).map(({ part }) => part);
  const title = channel.words.title || sheet.title;
  return {
    id: drop.id,
    video: { id: sheet.id, title: sheet.title },
    channel,
    stops: stopTimes(drop, events),
    sentAt: drop.sentAt?.toISOString(),
    speeds: drop.speeds ?? [],
    matches: matches.map((match) => matchView(match, drop, record)),
    length: record.cut?.facts?.duration,
    differences,
    mayTakeOver: mayTakeOver([...new Set(open)], profile),
    // Before that, what was refused is told by what stops it.
    failed: drop.state === 'live' || drop.state === 'held' ? failedViews(parts) : [],
    readAt: drop.readAt?.toISOString(),
    reviews: reviewViews(reviews, names),
    expected: expected && { ...expected, from: expected.from.toISOString(), to: expected.to.toISOString() },
    given: givenViews(givenBefore(given), names),
    requests: requests.map((request) => ({ ...request, at: request.at.toISOString() })),
    embed: embedOf(drop.link, title, abilities, channel.values.embedding.value !== false),
  };
}
