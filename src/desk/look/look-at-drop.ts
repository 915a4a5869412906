import {
  type ChangedField,
  changedFields,
  givenFrom,
  mayTakeOver,
  reviewExpected,
  type Snag,
  STOPS,
  type Stop,
  stopsBehind,
  undecided,
} from '@/core/drop';
import type { SiteProfile } from '@/sites/contract';
import { database } from '@/store/database';
import { type Drop, type DropEvent, dropById, eventsOf } from '@/store/drops';
import { type GivenWords, givenTo } from '@/store/given-words';
import { type Review, reviewSeconds, reviewsOf } from '@/store/reviews';
import { matchesOf } from '@/store/rights-matches';
import { requestsOf } from '@/store/site-requests';
import { found } from '../desk-error';
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

function changesBetween(before: string | undefined, after: string | undefined, names: Names): ChangedField[] {
  const [was, is] = [before, after].map(givenFrom);
  return was && is ? changedFields(was, is, names) : [];
}

const reviewViews = (reviews: readonly Review[], names: Names): ReviewView[] =>
  reviews.map(({ id, handedInAt, endedAt, approved, reason, remedy, given }, index) => ({
    ...{ id, approved, reason, remedy },
    handedInAt: handedInAt.toISOString(),
    endedAt: endedAt?.toISOString(),
    changes: changesBetween(reviews[index - 1]?.given, given, names),
  }));

/** @param given the newest first */
const givenViews = (given: readonly GivenWords[], drop: Drop, names: Names): GivenView[] =>
  given.map(({ id, at, words }, index) => ({
    ...{ id, at: at.toISOString(), now: index === 0 && words === drop.sentWords },
    changes: changesBetween(given[index + 1]?.words, words, names),
  }));

/** What the site shows otherwise than it was meant. */
function differencesOf({ state, snag, shows }: Drop): NonNullable<Snag['differences']> {
  if (state === 'snag') return snag?.differences ?? [];
  return state === 'live' ? (shows ?? []) : [];
}

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
  const [sheet, record, events, matches, reviews, given, requests] = await Promise.all([
    lookAtSheet(drop.videoId),
    recordOf(db, drop.videoId),
    eventsOf(db, [dropId]),
    matchesOf(db, [dropId]),
    reviewsOf(db, [dropId]),
    givenTo(db, dropId),
    requestsOf(db, dropId),
  ]);
  const channel = found(
    sheet.channels.find(({ id }) => id === drop.channelId),
    'channel',
  );
  const { abilities, chapters } = site(channel.site).profile;
  const names: Names = (id) => channel.playlists.find((playlist) => playlist.id === id)?.title ?? id;
  const open = reviews.find(({ endedAt }) => !endedAt);
  const expected =
    open && reviewExpected(open.handedInAt, abilities.reviewHours, await reviewSeconds(db, channel.site));
  const differences = differencesOf(drop);
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
    mayTakeOver: mayTakeOver(undecided(differences), chapters?.way === 'description'),
    readAt: drop.readAt?.toISOString(),
    reviews: reviewViews(reviews, names),
    expected: expected && { ...expected, from: expected.from.toISOString(), to: expected.to.toISOString() },
    given: givenViews(given, drop, names),
    requests: requests.map((request) => ({ ...request, at: request.at.toISOString() })),
    embed: embedOf(drop.link, title, abilities, channel.values.embedding.value !== false),
  };
}
