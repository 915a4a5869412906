import type { Difference, PartName } from '@/core/parts';
import type { Database } from '@/store/database';
import { addDropEvent } from '@/store/drop/events';
import type { Drop } from '@/store/drop/shape';
import { tell } from '../notices/tell';
import { differenceWords } from './difference-words';

/** What the history says of a difference that somebody has made at the site. */
function freshWords(siteName: string, { part, field, meant, shown }: Difference): string {
  const short = (text: string) => (text.length > 120 ? `${text.slice(0, 117)}…` : text).replace(/\n/g, ' / ');
  if (part === 'file' || part === 'picture') return `Changed on ${siteName}: the ${field} is another one`;
  return `Changed on ${siteName}: ${field} is “${short(shown)}”; it was “${short(meant)}”`;
}

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
    const says = givenNow.includes(each.part) ? differenceWords(siteName, each) : freshWords(siteName, each);
    await addDropEvent(trx, drop.id, 'shows', says);
    await tell(trx, drop, 'changed', says);
  }
}
