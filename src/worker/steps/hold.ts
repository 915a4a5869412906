import { setTimeout as pause } from 'node:timers/promises';
import { isWider } from '@/core/drop';
import { hasAll } from '@/core/parts';
import { instantOf, isAgreed, isMissed, openingOf, timeIn } from '@/core/release';
import type { Use } from '@/core/work';
import { type MeantWords, meantWords } from '@/desk/drop/meant';
import { channelsNotChecked } from '@/desk/release/not-checked';
import type { SiteStatus } from '@/sites/contract';
import { databaseTime } from '@/store/clock';
import { database } from '@/store/database';
import type { Drop } from '@/store/drop/shape';
import { settings } from '@/store/settings';
import { askOfSight, untilNoneArrives } from './ask';
import { giveAgain, partsThere } from './give';
import { lateWords, secondsLate } from './late';
import { confirmTime, lookAtHeld } from './look-at-held';
import { NO_TIME, narrow } from './narrow';
import { keepBackReplaced } from './replaced';
import { SnagFound, type Step, type StepContext, type StepEnd } from './step';

/** So long before its moment a drop is in hand, so that nothing is left to do at the moment itself. */
const LEAD_SECONDS = 2;
/** So long before its moment it is looked at for the last time, while there is time to put things right. */
const LAST_LOOK_SECONDS = 60;
/** So long before its moment a site is told of it at the latest; after that, Kettle Drop opens the video itself. */
const TELL_SECONDS = 4;
/** Far from its moment it is looked at so often, and nearer than the second so often; between that, many are looked at together. */
const BETWEEN_LOOKS_SECONDS = 3600;
const NEAR_SECONDS = 3600;
const BETWEEN_NEAR_LOOKS_SECONDS = 600;
const LOOKS_WITHOUT_TIME_SECONDS = 6 * 3600;
const TO_BE_OPENED = 'All are checked, and it opens by your word: that they open together was chosen after it was sent';
/** What was kept so long by what is ours, such as a worker that was started anew, is told of; what was shorter is only written down. */
const TOLD_SECONDS = 60;

/**
 * Sees to a drop that is held until its moment: keeps the site's own time as it should be, looks now and then whether all is
 * well there, and lets the drop go. Never early, by the database's clock.
 */
export const hold: Step = async (context) => {
  const { drop, record, channel, profile, now } = context;
  const meant = meantWords(record, channel, drop, profile);
  // A person who has just said that it opens has seen who sees it.
  if (!drop.openAsked && drop.openedTo && isWider(drop.openedTo, meant.privacy)) {
    const notYet = await narrow(context, meant);
    if (notYet) return notYet;
  }
  const instant = meant.opensAt && instantOf(meant.opensAt);
  const way = meant.waitsFor ?? 'on my word';
  const notChecked = way === 'together' && !drop.wordAt ? await channelsNotChecked(record, drop) : [];
  const agreed = isAgreed(drop.agreed, meant);
  const opening = openingOf({ way, instant, wordAt: drop.wordAt, notChecked, isAgreed: agreed }, now);
  const keptBack = await keepBackReplaced(context, opening, () => keepNoTime(context, meant));
  if (keptBack) return keptBack;
  if (opening.does === 'ask') {
    await keepNoTime(context, meant);
    throw new SnagFound(
      'missed',
      `Its time, ${timeIn(meant.opensAt?.zone ?? 'UTC', opening.moment)}, is over, and nobody has said that it opens`,
      'Open it now, or set another time',
    );
  }
  if (meant.end === 'private' || (opening.does === 'wait' && !opening.until)) {
    await keepNoTime(context, meant);
    const { ends } = await lookAtHeld(context, meant);
    if (ends) return ends;
    await giveAgain(context);
    const asks = way === 'together' && notChecked.length === 0 && !agreed ? TO_BE_OPENED : undefined;
    const waiting = notChecked.length > 0 ? waitsForOthers(notChecked, instant, now) : asks;
    return { again: LOOKS_WITHOUT_TIME_SECONDS, fields: { opensAt: instant, waiting } };
  }
  if (opening.does === 'wait' && opening.until) return untilMoment(context, meant, opening.until);
  const late = opening.does === 'open' && !drop.wordAt && isMissed(opening.moment, now, meant.lateAtMost);
  if (opening.does === 'open' && late && !(await siteOpenedIt(context, meant))) {
    await keepNoTime(context, meant);
    throw new SnagFound(
      'missed',
      `It was to open ${timeIn(meant.opensAt?.zone ?? 'UTC', opening.moment)}, and could not`,
      'Open it now, or set another time',
      {},
      'missed',
    );
  }
  return letGo(context, meant, opening.does === 'open' ? opening.moment : now, now);
};

/** Whether the site has opened it by itself, at the time that it was told: then nothing was missed, whoever was off here. */
async function siteOpenedIt({ drop, adapter, session }: StepContext, { end }: MeantWords): Promise<boolean> {
  if (!drop.siteOpensAt) return false;
  return (await adapter.look(session, drop.siteVideoId ?? '')).status.privacy === end;
}

/** Waits for a moment that is to come: at a distance by looking again, near it to the millisecond. */
async function untilMoment(context: StepContext, meant: MeantWords, until: Date): Promise<StepEnd> {
  const { drop, now } = context;
  const left = (until.getTime() - now.getTime()) / 1000;
  if (!drop.wordAt) {
    if (left <= LAST_LOOK_SECONDS && !hasAll(await partsThere(context), meant.parts)) {
      return { move: 'outdated', says: 'Changed since it was checked: checked once more before it opens' };
    }
  }
  if (left > LEAD_SECONDS) {
    if (!drop.wordAt) {
      // However the site is, it is in hand again in time.
      await context.keep({ opensAt: until });
      const { status, openedByIt, ends } = await lookAtHeld(context, meant);
      if (ends) return ends;
      if (openedByIt) return letGo(context, meant, until, now);
      // Nothing that may take its time comes near the moment.
      if (left > LAST_LOOK_SECONDS) await giveAgain(context);
      if (left > TELL_SECONDS) await keepTime(context, meant, until, status);
      else if (drop.siteOpensAt && drop.siteOpensAt.getTime() !== until.getTime()) await keepNoTime(context, meant);
      // What was asked before may still take effect: then it is told once more.
      const looksAgain = left > TELL_SECONDS ? untilNoneArrives(context, aimOf(meant, until)) : undefined;
      if (looksAgain) return looksAgain;
    }
    const nearAt = left - NEAR_SECONDS - LAST_LOOK_SECONDS;
    const look = left > LAST_LOOK_SECONDS + 1 ? left - LAST_LOOK_SECONDS : left - LEAD_SECONDS;
    const isWatched = context.adapter.lookAtMany && settings().watchSeconds > 0;
    const far = isWatched ? LOOKS_WITHOUT_TIME_SECONDS : BETWEEN_LOOKS_SECONDS;
    const between =
      nearAt > 0 ? Math.min(far, Math.max(BETWEEN_NEAR_LOOKS_SECONDS, nearAt)) : BETWEEN_NEAR_LOOKS_SECONDS;
    return { again: Math.min(between, look), fields: { opensAt: until, waiting: undefined } };
  }
  for (let at = now; at < until; at = await databaseTime(database())) await pause(until.getTime() - at.getTime());
  return letGo(context, meant, until, until);
}

/** A word lets it go for what was checked as it was given; its time, for all that is checked until then. */
function letGo({ drop }: StepContext, { releaseKey }: MeantWords, moment: Date, now: Date): StepEnd {
  // A word has no time that could be missed.
  const late = drop.wordAt ? 0 : secondsLate(moment, now, false);
  const says = late > 0 ? `Opens late, by ${lateWords(late)}` : 'Its time has come';
  const fields = { releasedFor: drop.wordAt ? undefined : releaseKey };
  return { move: 'due', says, fields, goesOn: true, ...(late >= TOLD_SECONDS && { tells: 'missed', sharing: 'late' }) };
}

function waitsForOthers(names: readonly string[], instant: Date | undefined, now: Date): string {
  const late = instant && instant < now ? 'Its time is over; it still waits' : 'Waits';
  return `${late} until it is checked on ${new Intl.ListFormat('en').format(names)}`.slice(0, 500);
}

/** What a drop that is held asks its site for: a look waits behind what somebody waits for, which nothing keeps back. */
export function heldUse(drop: Drop, meant: MeantWords, now: Date): Use {
  const instant = meant.opensAt && instantOf(meant.opensAt);
  const near = instant && instant.getTime() - now.getTime() < 2 * LAST_LOOK_SECONDS * 1000;
  const isOpen = drop.openedTo && isWider(drop.openedTo, meant.privacy);
  const otherTime = drop.siteOpensAt && drop.siteOpensAt.getTime() !== instant?.getTime();
  return near || drop.wordAt || isOpen || otherTime ? 'urgent' : 'look';
}

/** What a site is asked that opens the video by itself. */
const aimOf = ({ end }: MeantWords, until: Date): string => `${end} at ${until.toISOString()}`;

/** Has a site that keeps times open the video by itself at the moment, where the record leaves it nothing to wait for. */
async function keepTime(context: StepContext, meant: MeantWords, until: Date, status: SiteStatus): Promise<void> {
  const { drop, adapter, session, keep, profile } = context;
  const showing = meant.waitsFor === 'first showing';
  const byTime = showing || meant.waitsFor === 'at a time';
  const { openAt } = adapter;
  const given = profile.keepsTime && byTime && openAt && hasAll(await partsThere(context), meant.parts);
  if (!given) return keepNoTime(context, meant);
  const siteVideoId = drop.siteVideoId ?? '';
  // The same time may be that of a first showing now, or no longer.
  const isTold = drop.siteOpensAt?.getTime() === until.getTime();
  if (isTold && (!profile.firstShowings || (status.firstShowing ?? false) === showing)) return;
  // Noted first: from here on the site may open it by itself, whatever happens to this process.
  await keep({ siteOpensAt: until });
  drop.siteOpensAt = until;
  const asked = () => openAt(session, siteVideoId, until, meant.end, showing);
  await askOfSight(context, aimOf(meant, until), asked);
  const { opensAt } = (await adapter.look(session, siteVideoId)).status;
  if (opensAt?.getTime() === until.getTime()) return confirmTime(context, until);
  await keepNoTime(context, meant);
  throw new SnagFound('difference', `${profile.name} does not keep the time that it was told`, 'Try again');
}

/** Takes a time back that the site was told. Where it has come meanwhile, that closes the video again. */
async function keepNoTime(context: StepContext, { privacy }: MeantWords): Promise<void> {
  const { drop, adapter, session, keep } = context;
  if (!drop.siteOpensAt) return;
  await askOfSight(context, privacy, () => adapter.showTo(session, drop.siteVideoId ?? '', privacy));
  await keep(NO_TIME);
  Object.assign(drop, NO_TIME);
}
