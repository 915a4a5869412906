import { ANEW } from '@/desk/send';
import type { Step } from './step';

/** Takes a video away from its site; one that never got there is gone already. */
export const remove: Step = async ({ drop, adapter, session }) => {
  if (drop.siteVideoId) await adapter.remove(session, drop.siteVideoId);
  return { move: 'gone', says: `Removed from ${adapter.profile.name}`, fields: { ...ANEW, renditionId: undefined } };
};
