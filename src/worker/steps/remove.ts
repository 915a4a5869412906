import { Readable } from 'node:stream';
import { ANEW } from '@/desk/drop/send';
import { SiteError } from '@/sites/contract';
import { removeLeftBehind } from './left-behind';
import type { Step, StepContext } from './step';

/**
 * What the site calls the video. Where it was asked to make room and the answer never came, it is asked once more: with the
 * same key it names what it made.
 */
async function idAtSite({ drop, channel, adapter, session }: StepContext): Promise<string | undefined> {
  if (drop.siteVideoId || !drop.begunWith) return drop.siteVideoId;
  const { key, fileName, size } = drop.begunWith;
  const file = { fileName, size, open: () => Readable.from([]) };
  try {
    return (await adapter.begin(session, channel.siteChannelId, key, file)).siteVideoId;
  } catch (error) {
    // A site that made room names it; one that makes none now made none before.
    if (error instanceof SiteError && (error.kind === 'refused' || error.kind === 'missing')) return undefined;
    throw error;
  }
}

/** Takes a video away from its site, with everything that was left behind there; one that never got there is gone already. */
export const remove: Step = async (context) => {
  const { adapter, session } = context;
  const id = await idAtSite(context);
  if (id) await adapter.remove(session, id);
  await removeLeftBehind(context);
  return { move: 'gone', says: `Removed from ${adapter.profile.name}`, fields: { ...ANEW, renditionId: undefined } };
};
