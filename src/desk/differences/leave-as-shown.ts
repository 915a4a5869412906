import type { PartsGiven } from '@/core/parts';
import type { Database } from '@/store/database';
import {
  noteGivenParts,
  noteLeft,
  noteShownParts,
  type PartsOf,
  partsOfDrop,
  shownOtherwise,
} from '@/store/drop/parts';

/** Counts parts as given, though the site was seen to show some otherwise: these are left as they are there. */
export async function leaveAsShown(trx: Database, drop: PartsOf, given: PartsGiven): Promise<void> {
  const shown = shownOtherwise(await partsOfDrop(trx, drop));
  await noteGivenParts(trx, drop, given);
  await noteShownParts(trx, drop, shown);
  await noteLeft(trx, drop);
}
