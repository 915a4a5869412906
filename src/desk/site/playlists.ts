import { object } from 'yup';
import type { Use } from '@/core/work';
import { SiteError } from '@/sites/contract';
import { database } from '@/store/database';
import { announce } from '@/store/feed';
import { newId } from '@/store/ids';
import { channelById, keepPlaylists, type Playlist, playlistsOf } from '@/store/site/channels';
import { DeskError, found } from '../desk-error';
import { trimmed } from '../text-shape';
import { sessionFor, site } from './session';

async function groupsOf(channelId: string, use?: Use) {
  const channel = found(await channelById(database(), channelId), 'channel');
  const { groups, profile } = site(channel.site);
  return { channel, groups, profile, session: sessionFor(channel.accountId, use) };
}

/**
 * Reads a channel's playlists from its site. Where the site has none, nothing is asked.
 * @param use a look where nobody waits for it
 */
export async function refreshPlaylists(channelId: string, use?: Use): Promise<Playlist[]> {
  const { channel, groups, profile, session } = await groupsOf(channelId, use);
  const db = database();
  if (!groups) return [];
  try {
    await keepPlaylists(db, channelId, await groups.list(session, channel.siteChannelId));
  } catch (error) {
    if (!(error instanceof SiteError)) throw error;
    throw new DeskError(
      'site',
      `The playlists of ${channel.name} could not be read from ${profile.name}: ${error.message}.`,
    );
  }
  await announce(db, 'channels', channel.accountId);
  return playlistsOf(db, [channelId]);
}

const newPlaylistShape = object({ title: trimmed().min(1, 'Give the playlist a name.').max(100).required() });

/** Makes a playlist at the site; it is among the channel's playlists afterwards, and is returned. */
export async function makePlaylist(channelId: string, input: unknown): Promise<Playlist> {
  const { title } = await newPlaylistShape.validate(input);
  const { channel, groups, profile, session } = await groupsOf(channelId);
  if (!groups) throw new DeskError('not taken', `${profile.name} has no playlists.`);
  try {
    const made = await groups.make(session, channel.siteChannelId, newId(), title);
    const all = await refreshPlaylists(channelId);
    return found(
      all.find((playlist) => playlist.sitePlaylistId === made.sitePlaylistId),
      'playlist',
    );
  } catch (error) {
    if (!(error instanceof SiteError)) throw error;
    throw new DeskError('site', `The playlist was not made at ${profile.name}: ${error.message}.`);
  }
}
