import { readAgain } from '@/desk/differences/read-again';
import { log } from '@/desk/log';
import { isOpenToUs } from '@/desk/site/session';
import { AllowanceSpent, SiteError } from '@/sites/contract';
import { database, transaction } from '@/store/database';
import { liveToRead } from '@/store/drop/claims';
import { takePartsToRetry } from '@/store/drop/parts';
import { askForJobsAnew } from '@/store/queue/jobs';
import { settings } from '@/store/settings';
import { channelById } from '@/store/site/channels';
import type { JobWork } from './job-work';

const AT_ONCE = 20;
const EVERY_SECONDS = 15;
/** What could not be read is left for so long: one that a site cannot tell of would keep all others from being read. */
const LEFT_MILLISECONDS = 10 * 60_000;

/** Drops that this process leaves for now, and until when. */
const leftUntil = new Map<string, number>();

function leftNow(): string[] {
  for (const [id, until] of leftUntil) if (until < Date.now()) leftUntil.delete(id);
  return [...leftUntil.keys()];
}

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
    await transaction(async (trx) => askForJobsAnew(trx, 'give', await takePartsToRetry(trx, channel.id, AT_ONCE)));
    for (const drop of await liveToRead(db, channel.id, readSeconds, AT_ONCE, leftNow())) {
      if (signal.aborted) return { again };
      try {
        await readAgain(drop, channel);
      } catch (error) {
        if (error instanceof AllowanceSpent) return { again: Math.max(EVERY_SECONDS, error.seconds) };
        if (!(error instanceof SiteError)) throw error;
        // A site that is not there now is asked another time.
        log.info({ drop: drop.id, why: error.message }, 'live video not read');
        leftUntil.set(drop.id, Date.now() + LEFT_MILLISECONDS);
        return { again };
      }
    }
    return { again };
  },
};
