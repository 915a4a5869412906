import { idAtSite } from './id-at-site';
import type { StepContext } from './step';

/** Removes videos from the site that a drop has left behind there when it was sent anew. */
export async function removeLeftBehind(context: StepContext): Promise<void> {
  const { drop, adapter, session, keep } = context;
  if (!drop.leftBehind || drop.leftBehind.length === 0) return;
  for (const trace of adapter.profile.abilities.removes ? drop.leftBehind : []) {
    const [siteVideoId, begunWith] = typeof trace === 'string' ? [trace] : [undefined, trace];
    const id = await idAtSite({ siteVideoId, begunWith }, context);
    if (id) await adapter.remove(session, id);
  }
  await keep({ leftBehind: undefined });
}
