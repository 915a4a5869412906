import type { Database } from '@/store/database';
import { newId } from '@/store/ids';
import type { AccountState } from '@/store/site/accounts';

export interface Channel {
  id: string;
  accountId: string;
  site: string;
  siteChannelId: string;
  name: string;
  address: string;
  accountName: string;
  /** Whether the account's permission still covers this channel. */
  granted: boolean;
  accountState: AccountState;
  /** Whether adverts may be shown on its videos. */
  mayEarn: boolean;
  lastUsedAt: Date | undefined;
  /** How fast its line was over the last transfers. */
  bytesPerSecond: number | undefined;
}

export interface Playlist {
  id: string;
  channelId: string;
  sitePlaylistId: string;
  title: string;
  videos: number;
}

const channelQuery = (db: Database) =>
  db('channels as c').join('accounts as a', 'a.id', 'c.accountId').select({
    id: 'c.id',
    accountId: 'c.accountId',
    site: 'a.site',
    siteChannelId: 'c.siteChannelId',
    name: 'c.name',
    address: 'c.address',
    granted: 'c.granted',
    accountName: 'a.name',
    accountState: 'a.state',
    mayEarn: 'c.mayEarn',
    lastUsedAt: 'c.lastUsedAt',
    bytesPerSecond: 'c.bytesPerSecond',
  });

interface Row extends Omit<Channel, 'granted' | 'mayEarn' | 'lastUsedAt' | 'bytesPerSecond'> {
  granted: number;
  mayEarn: number;
  lastUsedAt: Date | null;
  bytesPerSecond: number | null;
}

const fromRow = (row: Row): Channel => ({
  ...row,
  granted: row.granted === 1,
  mayEarn: row.mayEarn === 1,
  lastUsedAt: row.lastUsedAt ?? undefined,
  bytesPerSecond: row.bytesPerSecond ?? undefined,
});

/** Every channel that was ever connected, in the order in which they came. */
export async function allChannels(db: Database): Promise<Channel[]> {
  return (await channelQuery(db).orderBy('c.id')).map(fromRow);
}

/** The channels that videos go to or went to. */
export async function channelsInUse(db: Database): Promise<Set<string>> {
  const rows: { channelId: string }[] = await db('drops').distinct('channelId');
  return new Set(rows.map(({ channelId }) => channelId));
}

/** The channels named, by their ids. */
export async function channelsById(db: Database, ids: readonly string[]): Promise<Map<string, Channel>> {
  const rows = await channelQuery(db).whereIn('c.id', [...ids]);
  return new Map(rows.map(fromRow).map((channel: Channel) => [channel.id, channel]));
}

export async function channelById(db: Database, id: string): Promise<Channel | undefined> {
  const row = await channelQuery(db).where('c.id', id).first();
  return row && fromRow(row);
}

/** Keeps the channels that an account's permission covers now; channels it no longer covers stay, marked so. */
export async function keepChannels(
  db: Database,
  accountId: string,
  found: readonly Pick<Channel, 'siteChannelId' | 'name' | 'address' | 'mayEarn'>[],
): Promise<void> {
  await db('channels').where({ accountId }).update({ granted: false });
  for (const { siteChannelId, name, address, mayEarn } of found) {
    await db('channels')
      .insert({
        id: newId(),
        accountId,
        siteChannelId,
        name,
        address,
        mayEarn,
        granted: true,
        createdAt: new Date(),
      })
      .onConflict(['accountId', 'siteChannelId'])
      .merge(['name', 'address', 'granted', 'mayEarn']);
  }
}

/** Notes that something was sent to a channel just now. */
export async function noteChannelUsed(db: Database, id: string): Promise<void> {
  await db('channels').where({ id }).update({ lastUsedAt: new Date() });
}

/** Notes how fast the line to a channel was; the newest transfers count most. */
export async function noteLine(db: Database, id: string, bytesPerSecond: number): Promise<void> {
  const mean = db.raw('COALESCE(?? * 0.5 + ? * 0.5, ?)', ['bytesPerSecond', bytesPerSecond, bytesPerSecond]);
  await db('channels').where({ id }).update({ bytesPerSecond: mean });
}

/** Keeps a channel's playlists as the site lists them; those that are gone there go here. */
export async function keepPlaylists(
  db: Database,
  channelId: string,
  found: readonly Pick<Playlist, 'sitePlaylistId' | 'title' | 'videos'>[],
): Promise<void> {
  const siteIds = found.map((playlist) => playlist.sitePlaylistId);
  await db('playlists').where({ channelId }).whereNotIn('sitePlaylistId', siteIds).delete();
  for (const { sitePlaylistId, title, videos } of found) {
    await db('playlists')
      .insert({ id: newId(), channelId, sitePlaylistId, title, videos })
      .onConflict(['channelId', 'sitePlaylistId'])
      .merge(['title', 'videos']);
  }
}

/** The playlists of all channels, as last read from their sites. */
export async function allPlaylists(db: Database): Promise<Playlist[]> {
  return db('playlists').select('id', 'channelId', 'sitePlaylistId', 'title', 'videos').orderBy('id');
}

/** The playlists of the channels named, as last read from their sites. */
export async function playlistsOf(db: Database, channelIds: readonly string[]): Promise<Playlist[]> {
  return db('playlists')
    .select('id', 'channelId', 'sitePlaylistId', 'title', 'videos')
    .whereIn('channelId', [...channelIds])
    .orderBy('id');
}
