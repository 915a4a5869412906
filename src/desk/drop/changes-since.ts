import { type ChangedField, changedFields, givenFrom } from '@/core/drop';
import type { Channel } from '@/store/channels';
import type { Drop } from '@/store/drops';
import type { MeantWords } from './meant';
import type { VideoRecord } from './record';

/**
 * What has changed of a drop since it went to its site, field by field; nothing where it is not there, or on its way.
 * @param drop what went out, with the words as they were
 * @param meant what would go out now
 */
export function changesSince(
  { layers }: Pick<VideoRecord, 'layers'>,
  channel: Pick<Channel, 'id'>,
  drop: Pick<Drop, 'state' | 'sentWords'> | undefined,
  meant: Pick<MeantWords, 'asText'>,
): ChangedField[] {
  if (!drop?.sentWords || (drop.state !== 'held' && drop.state !== 'live')) return [];
  if (drop.sentWords === meant.asText) return [];
  const title = (id: string) => {
    const playlist = layers.playlists.find((each) => each.channelId === channel.id && each.sitePlaylistId === id);
    return playlist?.title ?? id;
  };
  const [was, is] = [drop.sentWords, meant.asText].map(givenFrom);
  return was && is ? changedFields(was, is, title) : [];
}
