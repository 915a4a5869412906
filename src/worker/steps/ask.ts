import { type AskedOfSight, askedOnceMore, mayStillArrive } from '@/core/drop';
import { AllowanceSpent, SiteError } from '@/sites/contract';
import { databaseTime } from '@/store/clock';
import { database } from '@/store/database';
import { noteAnswered } from '@/store/drop/asked-of-sight';
import { newId } from '@/store/ids';
import { settings } from '@/store/settings';
import type { StepContext, StepEnd } from './step';

/** So soon the site is looked at again while a call of before may still change what it shows. */
const LOOK_SECONDS = 2;

/** What the site was asked of who sees the video, and may still do. */
export const onItsWay = (asking: AskedOfSight[] | undefined, now: Date): AskedOfSight[] =>
  mayStillArrive(asking, settings().lateCallSeconds, now);

/**
 * Asks the site for what changes who sees the video. That it was asked is kept first, and forgotten with its answer: whoever
 * has the drop next knows of a call that may still take effect, though its worker was killed or the line broke.
 * @param aim what is asked, with the time where it is one for later
 */
export async function askOfSight(context: StepContext, aim: string, ask: () => Promise<void>): Promise<void> {
  const { drop, keep } = context;
  const [key, now] = [newId(), await databaseTime(database())];
  drop.asking = askedOnceMore(onItsWay(drop.asking, now), { aim, at: now.toISOString(), key });
  await keep({ asking: drop.asking });
  let answered = true;
  try {
    await ask();
  } catch (error) {
    answered = !(error instanceof SiteError) || error instanceof AllowanceSpent || error.kind !== 'unreachable';
    throw error;
  } finally {
    if (answered) {
      drop.asking = drop.asking.filter((each) => each.key !== key);
      await noteAnswered(drop.id, key);
    }
  }
}

/** While what was asked before with another aim may still take effect, the site is to be looked at again. */
export function untilNoneArrives({ drop, now }: StepContext, aim: string): StepEnd | undefined {
  if (onItsWay(drop.asking, now).every((each) => each.aim === aim)) return undefined;
  const progress = { says: 'making sure that no call of before changes it' };
  return { again: LOOK_SECONDS, fields: { waiting: undefined, progress } };
}
