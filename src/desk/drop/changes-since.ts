import {
  type ChangedField,
  changedFields,
  givenParts,
  hasAll,
  PARTS,
  type PartsAtSite,
  partsToGive,
} from '@/core/parts';
import type { Drop } from '@/store/drop/shape';
import type { Channel } from '@/store/site/channels';
import type { MeantWords } from './meant';
import type { VideoRecord } from './record';

/** The titles of a channel’s playlists by their ids at the site; an id that is not known stands for itself. */
export function titlesOf(
  { layers }: { layers: Pick<VideoRecord['layers'], 'playlists'> },
  channelId: string,
): (id: string) => string {
  return (id) =>
    layers.playlists.find((each) => each.channelId === channelId && each.sitePlaylistId === id)?.title ?? id;
}

/**
 * What has changed of a drop since it went to its site, field by field; nothing where it is not there, or on its way.
 * @param there what the site has
 * @param meant what would go out now
 */
export function changesSince(
  record: Pick<VideoRecord, 'layers'>,
  channel: Pick<Channel, 'id'>,
  drop: Pick<Drop, 'state'> | undefined,
  there: PartsAtSite,
  meant: Pick<MeantWords, 'parts'>,
): ChangedField[] {
  if (drop?.state !== 'held' && drop?.state !== 'live') return [];
  const given = givenParts(there);
  if (Object.keys(given).length === 0 || hasAll(there, meant.parts)) return [];
  const changes = changedFields(given, meant.parts, titlesOf(record, channel.id));
  // It may have been taken or not: it is told once more.
  const asked = partsToGive(there, meant.parts).filter((part) => !changes.some((each) => each.part === part));
  const unsure = { was: 'asked, and not confirmed', is: 'to be sent once more' };
  return [...changes, ...asked.map((part) => ({ part, field: PARTS[part].label, ...unsure }))];
}
