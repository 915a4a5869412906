import type { End } from '@/core/drop';
import { askOfSight, untilNoneArrives } from './ask';
import { lookAgain, type StepContext, type StepEnd } from './step';

/**
 * Has the site show the video to these people. Until it says so itself, and nothing that was asked before can undo it, the step
 * ends with what is returned.
 */
export async function showTo(context: StepContext, end: End, password = ''): Promise<StepEnd | undefined> {
  const { drop, adapter, session, now, keep } = context;
  const siteVideoId = drop.siteVideoId ?? '';
  await askOfSight(context, end, () => adapter.showTo(session, siteVideoId, end, password));
  const { privacy } = (await adapter.look(session, siteVideoId)).status;
  if (privacy !== end) return lookAgain(drop, now, 'processing', { progress: { says: 'waiting for the site' } });
  await keep({ confirmedTo: end });
  drop.confirmedTo = end;
  return untilNoneArrives(context, end);
}
