import { Readable } from 'node:stream';
import { type Session, type SiteAdapter, SiteError } from '@/sites/contract';
import type { Drop } from '@/store/drop/shape';
import type { Channel } from '@/store/site/channels';

/**
 * What the site calls a video. Where it was asked to make room and the answer never came, it is asked once more: with the
 * same key it names what it made.
 * @returns undefined where it never made any
 */
export async function idAtSite(
  { siteVideoId, begunWith }: Pick<Drop, 'siteVideoId' | 'begunWith'>,
  { adapter, session, channel }: { adapter: SiteAdapter; session: Session; channel: Pick<Channel, 'siteChannelId'> },
): Promise<string | undefined> {
  if (siteVideoId || !begunWith) return siteVideoId;
  const { key, fileName, size } = begunWith;
  const file = { fileName, size, open: () => Readable.from([]) };
  try {
    return (await adapter.begin(session, channel.siteChannelId, key, file)).siteVideoId;
  } catch (error) {
    // A site that made room names it; one that makes none now made none before.
    if (error instanceof SiteError && (error.kind === 'refused' || error.kind === 'missing')) return undefined;
    throw error;
  }
}
