import { restBetweenRounds } from '@/core/work';
import { log } from '@/desk/log';
import { type LooksTogether, lookTogether } from '@/desk/site/look-together';
import { isOpenToUs, sessionFor, site } from '@/desk/site/session';
import { AllowanceSpent, type SiteProfile } from '@/sites/contract';
import { databaseTime } from '@/store/clock';
import { database } from '@/store/database';
import { heldToWatch, lookAtHeldNow } from '@/store/drop/held';
import type { Drop } from '@/store/drop/shape';
import { settings } from '@/store/settings';
import { allowancesOf } from '@/store/site/allowances';
import { allChannels, channelById } from '@/store/site/channels';
import { onItsWay } from '../steps/ask';
import { isAsLeft } from '../steps/held-there';
import type { JobWork } from './job-work';
import { leftFor } from './left-for';

/** Where nothing can be watched, it is looked so often whether it can. */
const NOT_NOW_SECONDS = 60;
/** One that its site cannot tell of among others is looked at alone so often. */
const alone = leftFor(3_600_000);

/**
 * Looks at all that a channel holds, many videos in one request, and has a worker see to those that are not as they were left. A
 * site that tells only of one video at a time is asked for each when its drop is due.
 */
export const watchHeld: JobWork = {
  everySeconds: NOT_NOW_SECONDS,
  async run({ job, signal }) {
    const db = database();
    const { watchSeconds } = settings();
    const channel = await channelById(db, job.subject);
    const { lookAtMany, profile } = channel ? site(channel.site) : {};
    if (watchSeconds === 0 || !channel || !lookAtMany || !profile || !isOpenToUs(channel)) return {};
    let requests = 0;
    try {
      for await (const drops of heldToWatch(db, channel.id, lookAtMany.atOnce)) {
        if (signal.aborted) return {};
        const now = await databaseTime(db);
        const there = drops.flatMap(({ siteVideoId }) => siteVideoId ?? []);
        const told = await lookTogether(lookAtMany, sessionFor(channel.accountId, 'look'), there);
        requests += told.requests;
        // What we have just asked for may be so already, or not yet: whoever has asked sees to that.
        const others = drops
          .filter(({ asking }) => onItsWay(asking, now).length === 0)
          .filter((drop) => isToBeSeenTo(drop, told, profile));
        await lookAtHeldNow(
          db,
          others.map(({ id }) => id),
        );
      }
    } catch (error) {
      if (error instanceof AllowanceSpent) return { again: Math.max(watchSeconds, error.seconds) };
      // What is held is looked at one by one, too, later: nothing is missed for good.
      log.info({ channel: channel.id, why: (error as Error).message }, 'what is held was not looked at');
      return {};
    }
    // Other channels of the account take as much of its allowance.
    const { accountId } = channel;
    const sharers = (await allChannels(db)).filter((each) => each.accountId === accountId).length;
    const allowances = await allowancesOf(db, accountId);
    return { again: restBetweenRounds(allowances, 'look', Math.max(1, requests) * sharers, watchSeconds) };
  },
};

/** Whether a drop is no longer as it was left. One that its site cannot tell of is looked at alone, now and then. */
function isToBeSeenTo(drop: Drop, { looks, atFault }: LooksTogether, profile: SiteProfile): boolean {
  const there = drop.siteVideoId ?? '';
  if (there !== atFault) return !isAsLeft(drop, looks.get(there)?.status, profile);
  if (alone.now().includes(drop.id)) return false;
  alone.leave(drop.id);
  return true;
}
