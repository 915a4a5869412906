import { log } from '@/desk/log';
import { tell } from '@/desk/notices/tell';
import { databaseTime } from '@/store/clock';
import { transaction } from '@/store/database';
import { dropById, setDrop } from '@/store/drop/drops';
import type { Drop } from '@/store/drop/shape';
import { isDueByItself, momentAtSite, wasToldLate } from './steps/late';

/** A site that has not answered for so long counts as one that is away. */
const STUCK_MILLISECONDS = 5000;

/**
 * Tells of a drop whose site does not answer at its moment, while it is still being asked.
 * @returns what ends the waiting, once it has answered
 */
export function tellIfStuck(drop: Drop, site: string, why: string): () => void {
  if (!isDueByItself(drop)) return () => {};
  const timer = setTimeout(() => {
    tellLate(drop, site, why).catch((error: Error) => log.error({ drop: drop.id, error: error.message }, 'not told'));
  }, STUCK_MILLISECONDS);
  return () => clearTimeout(timer);
}

/**
 * Tells, once for each moment, that a drop could not open at it. What one site keeps from opening at one moment is told as one.
 * @param site its id
 * @param why in a sentence, without the point at its end
 */
export async function tellLate(drop: Drop, site: string, why: string): Promise<void> {
  if (!isDueByItself(drop) || wasToldLate(drop)) return;
  await transaction(async (trx) => {
    const now = await dropById(trx, drop.id, true);
    if (!now || !isDueByItself(now) || wasToldLate(now)) return;
    await setDrop(trx, drop.id, { lateTold: await databaseTime(trx) });
    // A site that was told the time may well have opened it.
    const what = drop.siteOpensAt ? 'and nobody can say whether it has' : 'and does not yet';
    const says = `It was to open now, ${what}: ${why}. It is tried again by itself.`;
    await tell(trx, drop, 'missed', says, `late on ${momentAtSite(drop, site)}`);
  });
}
