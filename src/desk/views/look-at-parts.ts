import { PARTS, type PartName, type PartsGiven, type PrivacyValue, partNames } from '@/core/parts';
import { database } from '@/store/database';
import { dropsOf } from '@/store/drop/drops';
import { type KeptPart, partsOfDrops } from '@/store/drop/parts';
import type { Drop } from '@/store/drop/shape';
import { allChannels, type Channel } from '@/store/site/channels';
import { titlesOf } from '../drop/changes-since';
import { meantWords } from '../drop/meant';
import { profileAt, recordOf } from '../drop/record';
import { site } from '../site/session';

/** A value with since when it holds; ISO 8601 in UTC, null where that is not kept. */
interface ValueAt {
  value: unknown;
  at: string | null;
}

/** Where one part of a video stands on one channel. */
export interface PartView {
  part: PartName;
  label: string;
  /** What the site is meant to get. */
  wanted: unknown;
  /** What it was asked to take and has not confirmed. */
  asked: ValueAt | null;
  /** What it has confirmed. */
  given: ValueAt | null;
  /** What it was last seen to show, where that is something else. */
  shown: ValueAt | null;
  /** Whether a person has left it as it is shown. */
  left: boolean;
  /** Why it was not taken, and when it is tried again by itself. */
  failed: { why: string; at: string | null; again: string | null } | null;
  /** What differs between what is wanted and what was confirmed, in words; none where the site has it. */
  toGive: { field: string; was: string; is: string }[];
}

const iso = (at: Date | undefined) => at?.toISOString() ?? null;
const valueAt = (value: unknown, at: Date | undefined): ValueAt | null =>
  value === undefined ? null : { value, at: iso(at) };

/** Who sees it is what the site itself has said, whatever it was sent with. */
function privacyNow({ confirmedTo, openedTo }: Drop): Pick<PartView, 'asked' | 'given'> {
  const given = confirmedTo && { to: confirmedTo };
  const asked = openedTo !== undefined && openedTo !== (confirmedTo ?? 'private') ? { to: openedTo } : undefined;
  return { given: valueAt(given, undefined), asked: valueAt(asked, undefined) };
}

function partView(
  part: PartName,
  wanted: PartsGiven,
  kept: KeptPart | undefined,
  drop: Drop,
  titleOf: (id: string) => string,
): PartView {
  const { given, givenAt, asked, askedAt, shown, shownAt, differs, failed, failedAt, retryAt } = kept ?? {};
  const now = part === 'privacy' ? privacyNow(drop) : undefined;
  const confirmed = now ? (now.given?.value as PrivacyValue | undefined) : given;
  return {
    part,
    label: PARTS[part].label,
    wanted: wanted[part],
    asked: now ? now.asked : valueAt(asked, askedAt),
    given: now ? now.given : valueAt(given, givenAt),
    shown: differs ? valueAt(shown, shownAt) : null,
    left: differs === 'left',
    failed: failed === undefined ? null : { why: failed, at: iso(failedAt), again: iso(retryAt) },
    toGive: PARTS[part].changes(confirmed as never, wanted[part] as never, titleOf),
  };
}

/** Where each part of a video stands on each channel that it goes to, in the order in which parts are told. */
export async function lookAtParts(videoId: string): Promise<{ channel: Channel; parts: PartView[] }[]> {
  const db = database();
  const [record, channels, drops] = await Promise.all([recordOf(db, videoId), allChannels(db), dropsOf(db, [videoId])]);
  const kept = await partsOfDrops(
    db,
    drops.map(({ id }) => id),
  );
  return drops.flatMap((drop) => {
    const channel = channels.find(({ id }) => id === drop.channelId);
    if (!channel) return [];
    const wanted = meantWords(record, channel, drop, profileAt(site(channel.site).profile, channel)).parts;
    const there = new Map((kept.get(drop.id) ?? []).map((each) => [each.part, each]));
    const names = partNames().filter((part) => wanted[part] !== undefined);
    const titleOf = titlesOf(record, channel.id);
    return [{ channel, parts: names.map((part) => partView(part, wanted, there.get(part), drop, titleOf)) }];
  });
}
