import type { End } from '@/core/drop';
import { lookAgain, type StepContext, type StepEnd } from './step';

/** Has the site show the video to these people. Until it says so itself, the step ends with what is returned. */
export async function showTo(
  { drop, adapter, session, now }: StepContext,
  end: End,
  password = '',
): Promise<StepEnd | undefined> {
  const siteVideoId = drop.siteVideoId ?? '';
  await adapter.showTo(session, siteVideoId, end, password);
  const { privacy } = await adapter.status(session, siteVideoId);
  if (privacy === end) return undefined;
  return lookAgain(drop, now, 'processing', { progress: { says: 'waiting for the site' } });
}
