import { seriesForFile } from '@/core/defaults';
import { titleFromFileName } from '@/core/words';
import { allChannels } from '@/store/channels';
import type { Database } from '@/store/database';
import { defaultsOf } from '@/store/defaults';
import { dropsOf } from '@/store/drops';
import { allSeries } from '@/store/series';
import type { Video } from '@/store/videos';

/** What a file's name tells of the video: its series by the patterns, or else the series used last; title and episode. */
export async function recogniseFile(
  db: Database,
  fileName: string,
): Promise<Pick<Video, 'title' | 'seriesId' | 'seriesFrom' | 'episode'>> {
  const all = await allSeries(db);
  const known = seriesForFile(fileName, all);
  if (known) {
    const { title, episode = '' } = known.parts;
    return { title, episode, seriesId: known.series.id, seriesFrom: 'file' };
  }
  const title = titleFromFileName(fileName);
  const used = all.filter((series) => series.lastUsedAt !== undefined);
  const [last] = used.sort((a, b) => Number(b.lastUsedAt) - Number(a.lastUsedAt));
  return { title, episode: '', seriesId: last?.id, seriesFrom: last && 'last used' };
}

/** Channels that a series wants ticked and that are not, among those that are connected. */
export async function channelsToTick(db: Database, videoId: string, seriesId: string): Promise<string[]> {
  const { channels: wanted = [] } = await defaultsOf(db, { layer: 'series', owner: seriesId });
  if (wanted.length === 0) return [];
  const [all, drops] = await Promise.all([allChannels(db), dropsOf(db, [videoId])]);
  const ticked = new Set(drops.map((drop) => drop.channelId));
  const there = new Set(
    all.filter(({ accountState, granted }) => accountState === 'connected' && granted).map(({ id }) => id),
  );
  return wanted.filter((id) => there.has(id) && !ticked.has(id));
}

/**
 * Ticks that a video gets when it is put in a series, and those that it loses: channels that only its series before has
 * ticked, where nothing is set and nothing was sent.
 */
export async function ticksOfSeries(
  db: Database,
  video: Pick<Video, 'id' | 'seriesId'>,
  seriesId: string | undefined,
): Promise<{ tick: string[]; untick: string[] }> {
  const channelsOf = async (id: string | undefined) =>
    (id ? (await defaultsOf(db, { layer: 'series', owner: id })).channels : undefined) ?? [];
  const [before, now, drops] = await Promise.all([
    channelsOf(video.seriesId),
    channelsOf(seriesId),
    dropsOf(db, [video.id]),
  ]);
  const bare = drops.filter((drop) => {
    return drop.state === 'draft' && Object.keys(drop.own).length === 0 && drop.chosenPlaylists === undefined;
  });
  const only = bare.filter(({ channelId }) => before.includes(channelId) && !now.includes(channelId));
  return {
    tick: seriesId ? await channelsToTick(db, video.id, seriesId) : [],
    untick: only.map(({ channelId }) => channelId),
  };
}
