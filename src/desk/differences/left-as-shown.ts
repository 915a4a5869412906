import { type PartName, type PartsGiven, type PartsShown, shownNow } from '@/core/parts';
import type { Database } from '@/store/database';
import {
  noteGivenParts,
  noteLeft,
  noteShownParts,
  type PartsOf,
  partsOfDrop,
  shownOtherwise,
} from '@/store/drop/parts';

/**
 * Keeps what a site shows of some parts as left by a person: it is not told as somebody’s change when it is read again.
 * @param shown what the site shows
 * @param meant what it is to show
 */
export async function noteLeftAsShown(
  trx: Database,
  drop: PartsOf,
  parts: readonly PartName[],
  shown: PartsShown,
  meant: PartsShown,
): Promise<void> {
  const named = Object.fromEntries(Object.entries(meant).filter(([part]) => parts.includes(part as PartName)));
  await noteShownParts(trx, drop, shownNow({}, named, shown).kept);
  await noteLeft(trx, drop);
}

/** Counts parts as given, though the site was seen to show some otherwise: these are left as they are there. */
export async function leaveAsShown(trx: Database, drop: PartsOf, given: PartsGiven): Promise<void> {
  const shown = shownOtherwise(await partsOfDrop(trx, drop));
  await noteGivenParts(trx, drop, given);
  await noteShownParts(trx, drop, shown);
  await noteLeft(trx, drop);
}
