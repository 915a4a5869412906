import type { Opening } from '@/core/release';
import { otherFile } from '@/desk/drop/other-file';
import { database } from '@/store/database';
import { SnagFound, type StepContext, type StepEnd } from './step';

/** While a new file is coming, its drop is looked at again so soon. */
const LOOK_SECONDS = 15;

/**
 * Keeps a drop from opening whose file was replaced: with the file from before it goes out by a person's word alone.
 * @param takeTimeBack has the site open it at no time
 * @returns how the step ends while a new file is still coming; undefined where it may go on
 * @throws SnagFound where the new file is here, or the moment comes before it
 */
export async function keepBackReplaced(
  { drop, record, profile, now }: StepContext,
  opening: Opening,
  takeTimeBack: () => Promise<void>,
): Promise<StepEnd | undefined> {
  if (drop.openAsked || drop.former) return undefined;
  const other = await otherFile(database(), record, drop);
  if (!other) return undefined;
  await takeTimeBack();
  const isDue = opening.does === 'open' || opening.does === 'ask';
  if (other === 'here') {
    throw new SnagFound(
      'file',
      `Its file was replaced, and ${profile.name} has the one from before`,
      'Send the new file, or open it with the one that is there',
    );
  }
  if (isDue) {
    throw new SnagFound(
      'file',
      'Its time came while a new file is on its way',
      'Send the new file once it is here, or open it with the one that is there',
    );
  }
  const left = opening.until ? (opening.until.getTime() - now.getTime()) / 1000 : LOOK_SECONDS;
  const waiting = 'A new file is on its way; with the one from before it does not open by itself';
  return { again: Math.max(0, Math.min(LOOK_SECONDS, left)), fields: { opensAt: opening.until, waiting } };
}
