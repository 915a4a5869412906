import { PRIVACIES } from '../delivery/site-rules';
import { type End, isWider } from '../drop/end';
import { instantOf, type Moment } from './moment';
import { isTimed, type ReleaseWay } from './opening';

/** What a record says of how a video opens on one channel. */
export interface ReleaseValues {
  privacy: End;
  release: ReleaseWay;
  opensAt: Moment | null;
}

/** How a video opens on one channel. */
export interface ReleaseThere {
  /** Who is to see it in the end. */
  end: End;
  /** How it comes to be open, where it waits for anything but its check. */
  waitsFor: Exclude<ReleaseWay, 'by itself'> | undefined;
  /** When it is to open, where that is at a time. */
  opensAt: Moment | undefined;
  /** The release as a text, to tell whether it is still what a drop was let go for. */
  releaseKey: string;
  /** What a person agrees to who has it open by itself: the release, and who is to see it. */
  agreement: string;
}

/** The release that a person has agreed to, as a text, and by what: sending the video, sending changes, or setting a time. */
export interface Agreed {
  to: string;
  by: 'sending' | 'changes' | 'time';
}

/** Agreed to nothing: whatever its release says, it opens by a word alone. */
export const AGREED_TO_NOTHING: Agreed = { to: '', by: 'time' };

/**
 * How a video opens on a channel, as its record says.
 * @param hasFirstShowings whether the site has them; elsewhere such a one opens at its time
 */
export function releaseThere({ privacy, release, opensAt }: ReleaseValues, hasFirstShowings: boolean): ReleaseThere {
  const way = release === 'first showing' && !hasFirstShowings ? 'at a time' : release;
  // What nobody else sees has no release.
  const waitsFor = privacy === 'private' || way === 'by itself' ? undefined : way;
  const moment = (waitsFor && isTimed(waitsFor) ? opensAt : undefined) ?? undefined;
  const releaseKey = [waitsFor, moment?.wall, moment?.zone, moment?.which].join(' ');
  return { end: privacy, waitsFor, opensAt: moment, releaseKey, agreement: `${releaseKey} ${privacy}` };
}

type Release = ReleaseThere;

const isToCome = ({ opensAt }: Release, now: Date): boolean => opensAt !== undefined && instantOf(opensAt) > now;

/** Whether a person has agreed to the release that is in force. @param agreed undefined of what was sent before that was kept */
export const isAgreed = (agreed: Agreed | undefined, { agreement }: Release): boolean =>
  agreed === undefined || agreed.to === agreement;

/** What is agreed to by setting a release: a time that is still to come, and nothing else, since all else might open it at once. */
export const agreedByTime = (release: Release, now: Date): Agreed =>
  isToCome(release, now) ? { to: release.agreement, by: 'time' } : AGREED_TO_NOTHING;

/**
 * What is agreed to once something of a release was changed: what was agreed to before holds where it opens in the same way, to
 * nobody more.
 */
export function agreedAfterChange(release: Release, before: Agreed | undefined, now: Date): Agreed {
  const isFewer = PRIVACIES.some((end) => before?.to === `${release.releaseKey} ${end}` && !isWider(release.end, end));
  return isFewer && before ? { to: release.agreement, by: before.by } : agreedByTime(release, now);
}

/** What a person agrees to who sends a video as it is set: how it opens, but for a moment that is over. */
export const agreedBySending = (release: Release, now: Date): Agreed =>
  release.opensAt === undefined || isToCome(release, now)
    ? { to: release.agreement, by: 'sending' }
    : AGREED_TO_NOTHING;

/**
 * The same of who sends changes of what is at its site. These open nothing together with others that was not agreed to before.
 * @param before what was agreed to until then
 */
export function agreedByChanges(release: Release, before: Agreed | undefined, now: Date): Agreed | undefined {
  const opensAlone = release.waitsFor === undefined;
  return opensAlone || isToCome(release, now) ? { to: release.agreement, by: 'changes' } : before;
}
