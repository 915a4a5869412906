import { ANEW } from '@/desk/drop/send';
import { idAtSite } from './id-at-site';
import { removeLeftBehind } from './left-behind';
import type { Step } from './step';

/** Takes a video away from its site, with everything that was left behind there; one that never got there is gone already. */
export const remove: Step = async (context) => {
  const { adapter, session } = context;
  const id = await idAtSite(context.drop, context);
  if (id) await adapter.remove(session, id);
  const { former } = context.drop;
  if (former) await adapter.remove(session, former.siteVideoId);
  await removeLeftBehind(context);
  return { move: 'gone', says: `Removed from ${adapter.profile.name}`, fields: { ...ANEW, renditionId: undefined } };
};
