import { setTimeout as pause } from 'node:timers/promises';
import { instantOf, isMissed, openingOf, shownIn } from '@/core/release';
import { type MeantWords, meantWords } from '@/desk/drop/meant';
import { channelsNotChecked } from '@/desk/release/not-checked';
import { databaseTime } from '@/store/clock';
import { database } from '@/store/database';
import { SnagFound, type Step, type StepContext, type StepEnd } from './step';

/** So long before its moment a drop is in hand, so that nothing is left to do at the moment itself. */
const LEAD_SECONDS = 2;
/** So long before its moment it is looked at for the last time, while there is time to put things right. */
const LAST_LOOK_SECONDS = 60;
/** So long before its moment a site is told of it at the latest; after that, Kettle Drop opens the video itself. */
const TELL_SECONDS = 4;
const BETWEEN_LOOKS_SECONDS = 3600;
/** What is opened so soon after its moment is not late. */
const ON_TIME_MILLISECONDS = 2000;

/**
 * Sees to a drop that is held until its moment: keeps the site's own time as it should be, looks now and then whether all is
 * well there, and lets the drop go. Never early, by the database's clock.
 */
export const hold: Step = async (context) => {
  const { drop, record, channel, profile, now } = context;
  const meant = meantWords(record, channel, drop, profile);
  const instant = meant.opensAt && instantOf(meant.opensAt);
  const way = meant.waitsFor ?? 'on my word';
  const notChecked = way === 'together' && !drop.wordAt ? await channelsNotChecked(record, drop) : [];
  const opening = openingOf({ way, instant, wordAt: drop.wordAt, notChecked }, now);
  if (meant.end === 'private' || (opening.does === 'wait' && !opening.until)) {
    await keepNoTime(context, meant);
    const waiting = notChecked.length > 0 ? waitsForOthers(notChecked, instant, now) : undefined;
    return { again: BETWEEN_LOOKS_SECONDS * 24, fields: { opensAt: instant, waiting } };
  }
  if (opening.does === 'wait' && opening.until) return untilMoment(context, meant, opening.until);
  const late = opening.does === 'open' && !drop.wordAt && isMissed(opening.moment, now, meant.lateAtMost);
  if (opening.does === 'open' && late && !(await siteOpenedIt(context, meant))) {
    await keepNoTime(context, meant);
    throw new SnagFound(
      'missed',
      `It was to open ${shownIn(meant.opensAt?.zone ?? 'UTC', opening.moment)}, and could not`,
      'Open it now, or set another time',
    );
  }
  return letGo(meant, opening.does === 'open' ? opening.moment : now, now);
};

/** Whether the site has opened it by itself, at the time that it was told: then nothing was missed, whoever was off here. */
async function siteOpenedIt({ drop, adapter, session }: StepContext, { end }: MeantWords): Promise<boolean> {
  if (!drop.siteOpensAt) return false;
  return (await adapter.status(session, drop.siteVideoId ?? '')).privacy === end;
}

/** Waits for a moment that is to come: at a distance by looking again, near it to the millisecond. */
async function untilMoment(context: StepContext, meant: MeantWords, until: Date): Promise<StepEnd> {
  const { drop, now, adapter, session } = context;
  const left = (until.getTime() - now.getTime()) / 1000;
  if (!drop.wordAt) {
    if (meant.asText !== drop.sentWords && left <= LAST_LOOK_SECONDS) {
      return { move: 'outdated', says: 'Changed since it was checked: checked once more before it opens' };
    }
  }
  if (left > LEAD_SECONDS) {
    if (!drop.wordAt) {
      // However the site is, it is in hand again in time.
      await context.keep({ opensAt: until });
      if (left > TELL_SECONDS) await keepTime(context, meant, until);
      else if (drop.siteOpensAt && drop.siteOpensAt.getTime() !== until.getTime()) await keepNoTime(context, meant);
      // Told when it happens, not at the moment: a permission taken back, a video that is gone.
      await adapter.status(session, drop.siteVideoId ?? '');
    }
    const look = left > LAST_LOOK_SECONDS + 1 ? left - LAST_LOOK_SECONDS : left - LEAD_SECONDS;
    return { again: Math.min(BETWEEN_LOOKS_SECONDS, look), fields: { opensAt: until, waiting: undefined } };
  }
  for (let at = now; at < until; at = await databaseTime(database())) await pause(until.getTime() - at.getTime());
  return letGo(meant, until, until);
}

function letGo({ releaseKey }: MeantWords, moment: Date, now: Date): StepEnd {
  const late = now.getTime() - moment.getTime();
  const isLate = late > ON_TIME_MILLISECONDS;
  const says = isLate ? `Opens late, by ${lateWords(late / 1000)}` : 'Its time has come';
  return { move: 'due', says, fields: { releasedFor: releaseKey }, goesOn: true, ...(isLate && { tells: 'missed' }) };
}

function lateWords(seconds: number): string {
  if (seconds < 90) return `${Math.round(seconds)} s`;
  return seconds < 5400 ? `${Math.round(seconds / 60)} min` : `${Math.round(seconds / 3600)} h`;
}

function waitsForOthers(names: readonly string[], instant: Date | undefined, now: Date): string {
  const late = instant && instant < now ? 'Its time is over; it still waits' : 'Waits';
  return `${late} until it is checked on ${new Intl.ListFormat('en').format(names)}`.slice(0, 500);
}

/** Has a site that keeps times open the video by itself at the moment, where the record leaves it nothing to wait for. */
async function keepTime(context: StepContext, meant: MeantWords, until: Date): Promise<void> {
  const { drop, adapter, session, keep, profile } = context;
  const showing = meant.waitsFor === 'first showing';
  const byTime = showing || meant.waitsFor === 'at a time';
  const given = profile.keepsTime && byTime && meant.asText === drop.sentWords;
  if (!given || !adapter.openAt) return keepNoTime(context, meant);
  const siteVideoId = drop.siteVideoId ?? '';
  if (drop.siteOpensAt?.getTime() === until.getTime()) {
    if (!profile.firstShowings) return;
    // The same time may be that of a first showing now, or no longer.
    if (((await adapter.status(session, siteVideoId)).firstShowing ?? false) === showing) return;
  }
  // Noted first: from here on the site may open it by itself, whatever happens to this process.
  await keep({ siteOpensAt: until });
  await adapter.openAt(session, siteVideoId, until, meant.end, showing);
  const { opensAt } = await adapter.status(session, siteVideoId);
  if (opensAt?.getTime() === until.getTime()) return;
  await keepNoTime({ ...context, drop: { ...drop, siteOpensAt: until } }, meant);
  throw new SnagFound('difference', `${profile.name} does not keep the time that it was told`, 'Try again', {
    fields: ['opening time'],
  });
}

/** Takes a time back that the site was told. Where it has come meanwhile, that closes the video again. */
async function keepNoTime({ drop, adapter, session, keep }: StepContext, { privacy }: MeantWords): Promise<void> {
  if (!drop.siteOpensAt) return;
  await adapter.showTo(session, drop.siteVideoId ?? '', privacy);
  await keep({ siteOpensAt: undefined });
}
