import { ValidationError } from 'yup';
import { restBetweenRounds } from '@/core/work';
import { readAgain, readManyAgain } from '@/desk/differences/read-again';
import { log } from '@/desk/log';
import { isOpenToUs, site } from '@/desk/site/session';
import { AllowanceSpent, type LookAtMany, SiteError } from '@/sites/contract';
import { database, transaction } from '@/store/database';
import { liveToRead } from '@/store/drop/claims';
import { takePartsToRetry } from '@/store/drop/parts';
import type { Drop } from '@/store/drop/shape';
import { askForJobsAnew } from '@/store/queue/jobs';
import { settings } from '@/store/settings';
import { allowancesOf } from '@/store/site/allowances';
import { type Channel, channelById } from '@/store/site/channels';
import type { JobWork } from './job-work';
import { leftFor } from './left-for';

const AT_ONCE = 20;
const EVERY_SECONDS = 15;
/** What could not be read is left for so long: one that a site cannot tell of would keep all others from being read. */
const left = leftFor(10 * 60_000);

/**
 * Reads the live videos of a channel again, those first that were read longest ago: soon after they opened, and then daily.
 * Where the site takes no more requests for now, the others wait.
 */
export const readLive: JobWork = {
  everySeconds: EVERY_SECONDS,
  async run({ job, signal }) {
    const db = database();
    const channel = await channelById(db, job.subject);
    const { readSeconds } = settings();
    if (readSeconds === 0 || !channel || !isOpenToUs(channel)) return {};
    const again = Math.min(EVERY_SECONDS, readSeconds);
    const { lookAtMany } = site(channel.site);
    await transaction(async (trx) => askForJobsAnew(trx, 'give', await takePartsToRetry(trx, channel.id, AT_ONCE)));
    const due = await liveToRead(db, channel.id, readSeconds, lookAtMany?.atOnce ?? AT_ONCE, left.now());
    try {
      const requests = await readDue(due, channel, lookAtMany, signal);
      if (requests === 0) return { again };
      return { again: restBetweenRounds(await allowancesOf(db, channel.accountId), 'read', requests, again) };
    } catch (error) {
      if (error instanceof AllowanceSpent) return { again: Math.max(EVERY_SECONDS, error.seconds) };
      throw error;
    }
  },
};

/** What a site says or does not say; anything else is our own fault. */
const isOfSite = (error: unknown): error is Error =>
  (error instanceof SiteError && !(error instanceof AllowanceSpent)) || error instanceof ValidationError;

/** Reads drops together where the site can tell of them so, else one by one until it cannot. @returns the requests of it */
async function readDue(
  drops: readonly Drop[],
  channel: Channel,
  lookAtMany: LookAtMany | undefined,
  signal: AbortSignal,
): Promise<number> {
  if (lookAtMany && drops.length > 1 && (await readTogether(drops, channel, lookAtMany))) return 1;
  let requests = 0;
  for (const drop of drops) {
    if (signal.aborted) break;
    requests += 1;
    if (!(await readAlone(drop, channel))) break;
  }
  return requests;
}

/** Whether the site could tell of all of them at once. */
async function readTogether(drops: readonly Drop[], channel: Channel, lookAtMany: LookAtMany): Promise<boolean> {
  try {
    await readManyAgain(drops, channel, lookAtMany);
    return true;
  } catch (error) {
    if (!isOfSite(error)) throw error;
    // One of them may be at fault: each is asked for alone.
    log.info({ channel: channel.id, why: error.message }, 'live videos not read together');
    return false;
  }
}

/** Whether the site could tell of it; where not, it is left for a while, so that it keeps no others from being read. */
async function readAlone(drop: Drop, channel: Channel): Promise<boolean> {
  try {
    await readAgain(drop, channel, [], 'read');
    return true;
  } catch (error) {
    if (!isOfSite(error)) throw error;
    log.info({ drop: drop.id, why: error.message }, 'live video not read');
    left.leave(drop.id);
    return false;
  }
}
