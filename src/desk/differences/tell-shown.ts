import type { Difference, PartName } from '@/core/parts';
import type { Database } from '@/store/database';
import { addDropEvent } from '@/store/drop/events';
import type { Drop } from '@/store/drop/shape';
import { tell } from '../notices/tell';
import { differenceWords, theirChangeWords } from './difference-words';

/**
 * Tells what the site of a live drop shows otherwise, in its history and as a notice: what somebody has changed there, or what
 * came of what it was given just now.
 */
export async function tellShown(
  trx: Database,
  drop: Drop,
  siteName: string,
  fresh: readonly Difference[],
  givenNow: readonly PartName[] = [],
): Promise<void> {
  for (const each of fresh) {
    const words = givenNow.includes(each.part) ? differenceWords : theirChangeWords;
    const says = words(siteName, each);
    await addDropEvent(trx, drop.id, 'shows', says);
    await tell(trx, drop, 'changed', says);
  }
}
