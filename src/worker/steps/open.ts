import { setTimeout as pause } from 'node:timers/promises';
import { type End, isOpenTo, isWider } from '@/core/drop';
import { hasAll } from '@/core/parts';
import { instantOf, isMissed } from '@/core/release';
import { afterProof } from '@/desk/drop/after-proof';
import { goesToEnd, type MeantWords, meantWords } from '@/desk/drop/meant';
import { recordOf } from '@/desk/drop/record';
import { databaseTime } from '@/store/clock';
import { database, transaction } from '@/store/database';
import { dropById } from '@/store/drop/drops';
import { noteShownAsMeant, partsOfDrop, shownOtherwise } from '@/store/drop/parts';
import type { Drop } from '@/store/drop/shape';
import { videoById } from '@/store/record/videos';
import { retireFormer, swapFile } from './former';
import { partsThere } from './give';
import { isDueByItself, lateWords, momentAtSite, momentOf, secondsLate, wasToldLate } from './late';
import { showTo } from './show-to';
import type { Step, StepContext, StepEnd, ToldAs } from './step';

const LIVE: Record<End, string> = {
  everyone: 'Live: open to everyone',
  link: 'Live: open by link only',
  password: 'Live: open with a password',
  private: 'Live: private',
};

/** How long a site that was told the time is left to open the video by itself. */
const SITE_OPENS_TRIES = 8;
const SITE_OPENS_MILLISECONDS = 500;

/** Towards live: shown to those who are to see it, and only when the site says so. */
export const open: Step = async (context) => {
  await swapFile(context);
  const { drop, record } = context;
  const meant = meantBy(context, record);
  // What was changed since it was proofed is proofed first, or waits for its moment.
  const isGiven = hasAll(await partsThere(context), meant.parts);
  const isToOpen = afterProof(meant, drop, context.profile.opensItself === true) === 'goes on';
  if (!isGiven || !isToOpen) return changedMeanwhile;
  if (await isTooLate(context, meant)) {
    return { move: 'notToOpen', says: 'Not opened: its time is over by too long', fields: { releasedFor: undefined } };
  }
  // Who sent other words has not opened what somebody closed at the site.
  const staysAsThere =
    drop.liveAt !== undefined && drop.confirmedTo === meant.end && (await showsOtherPrivacy(drop, meant.end));
  const before = { ...drop };
  if (!(await noteOpening(context, meant))) return changedMeanwhile;
  // A person’s word is not left to the site’s own time.
  const leftToSite = drop.siteOpensAt !== undefined && !drop.openAsked;
  const byItself = leftToSite && (await siteHasOpened(context, meant.end));
  const notYet = byItself || staysAsThere ? undefined : await showTo(context, meant.end, meant.password);
  if (notYet) return notYet;
  await retireFormer(context);
  // Set to fewer people, or to another time, while the site was being asked: taken back at once.
  const now = meantBy({ ...context, drop: before }, await recordOf(database(), drop.videoId));
  const found = await dropById(database(), drop.id);
  const openAsked = found?.openAsked === true;
  if (isWider(meant.end, now.end) || !goesToEnd(now, { ...before, openAsked })) {
    // It was asked for, and is not to be: what the site has said of it counts for nothing.
    const fields = { confirmedTo: before.confirmedTo };
    return { move: 'notToOpen', says: 'Taken back: it was set otherwise meanwhile', fields };
  }
  const isDue = isDueByItself(drop) && !byItself;
  // Somebody may have been told while the site was being asked.
  const wasTold = wasToldLate(found ?? drop);
  const late = isDue ? secondsLate(momentOf(drop, meant), await databaseTime(database()), wasTold) : 0;
  return {
    move: 'opened',
    ...toldAs(drop, meant.end, wasTold && late > 0 ? context.channel.site : undefined),
    says: staysAsThere
      ? `Live: who sees it was changed on ${context.profile.name}, and stays so`
      : `${LIVE[meant.end]}${byItself ? ', by the site at its time' : ''}${late > 0 ? `, ${lateWords(late)} late` : ''}`,
    fields: {
      liveAt: drop.liveAt ?? new Date(),
      openedAt: drop.openedAt ?? (isOpenTo(meant.end) ? new Date() : undefined),
      confirmedTo: meant.end,
      openAsked: false,
      siteOpensAt: undefined,
      confirmedOpensAt: undefined,
      releasedFor: undefined,
      lateTold: undefined,
      ...(isOpenTo(meant.end) && { closedFrom: undefined }),
    },
  };
};

/**
 * What is told of one that has opened: what was open before has only changed its words, and nobody else sees a private one.
 * @param lateOn the site where it opened late, of which somebody was told
 */
function toldAs(drop: Drop, end: End, lateOn: string | undefined): ToldAs {
  if (!isOpenTo(end) || drop.openedAt !== undefined) return {};
  // Whoever was told that it does not open is told that it has.
  if (lateOn) return { tells: 'missed', sharing: `open late on ${momentAtSite(drop, lateOn)}` };
  return { tells: 'live' };
}

/** Whether it is shown to others than it is meant for, of which somebody was told. What was told of another end says nothing. */
async function showsOtherPrivacy(drop: Drop, end: End): Promise<boolean> {
  return drop.openedTo === end && shownOtherwise(await partsOfDrop(database(), drop)).privacy !== undefined;
}

const changedMeanwhile: StepEnd = { move: 'notToOpen', says: 'Not opened yet: it was changed meanwhile' };

const meantBy = ({ channel, drop, profile }: StepContext, record: StepContext['record']): MeantWords =>
  meantWords(record, channel, drop, profile);

/**
 * Notes that it may be open from here on, whatever happens to this process. Changes of the release wait for this, and are
 * refused after it; one that was made before is seen here, and keeps it closed. Whether it is still to open is returned.
 */
async function noteOpening({ drop, channel, profile, keep }: StepContext, { end }: MeantWords): Promise<boolean> {
  return transaction(async (trx) => {
    await videoById(trx, drop.videoId, true);
    const now = meantWords(await recordOf(trx, drop.videoId), channel, drop, profile);
    // A word that was taken back since this was read does not open it.
    const openAsked = (await dropById(trx, drop.id))?.openAsked === true;
    if (!goesToEnd(now, { ...drop, openAsked }) || now.end !== end) return false;
    // What was told of who saw it before says nothing of who is to see it now.
    if (drop.openedTo !== end) await noteShownAsMeant(trx, drop, 'privacy');
    // Where it is opened once more, that is when it opened.
    const opens = isOpenTo(end) && !isOpenTo(drop.openedTo);
    const noted = { openedAt: opens ? undefined : drop.openedAt };
    await keep({ openedTo: end, ...noted }, trx);
    Object.assign(drop, noted);
    return true;
  });
}

/**
 * Whether its time is over by more than was said to be all right, and the site has not opened it: then it is asked about, however
 * long the site was away.
 */
async function isTooLate({ drop, adapter, session, now }: StepContext, meant: MeantWords): Promise<boolean> {
  const instant = meant.opensAt && instantOf(meant.opensAt);
  const byTime = !drop.openAsked && drop.releasedFor === meant.releaseKey;
  if (!instant || !byTime || !isMissed(instant, now, meant.lateAtMost)) return false;
  return (await adapter.look(session, drop.siteVideoId ?? '')).status.privacy !== meant.end;
}

/** Whether a site that was told the time has opened the video, to those who are to see it. */
async function siteHasOpened({ adapter, session, drop }: StepContext, end: End): Promise<boolean> {
  for (let tries = 0; tries < SITE_OPENS_TRIES; tries += 1) {
    if (tries > 0) await pause(SITE_OPENS_MILLISECONDS);
    const { privacy } = (await adapter.look(session, drop.siteVideoId ?? '')).status;
    if (privacy === end) return true;
  }
  return false;
}
