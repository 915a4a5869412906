import { seriesForFile } from '@/core/defaults';
import { titleFromFileName } from '@/core/words';
import { type Database, database } from '@/store/database';
import { dropsOf } from '@/store/drop/drops';
import { defaultsOf } from '@/store/record/defaults';
import { allSeries, type Series } from '@/store/record/series';
import type { Video } from '@/store/record/videos';
import { allChannels } from '@/store/site/channels';

/** What a file's name tells of the video: its series, title and episode. A name that fits no pattern has no series. */
export async function recogniseFile(
  db: Database,
  fileName: string,
): Promise<Pick<Video, 'title' | 'seriesId' | 'seriesFrom' | 'episode'>> {
  const all = await allSeries(db);
  const recognised = seriesForFile(fileName, all);
  if (recognised) {
    const { title, episode = '' } = recognised.parts;
    return { title, episode, seriesId: recognised.series.id, seriesFrom: 'file' };
  }
  return { title: titleFromFileName(fileName), episode: '', seriesId: undefined, seriesFrom: undefined };
}

/** The series that a file's name tells, by its id; undefined where no pattern fits. */
export async function seriesOfFile(fileName: string): Promise<string | undefined> {
  return seriesForFile(fileName, await allSeries(database()))?.series.id;
}

/** The series that a video was put in last: an offer for one that is in none, never given by itself. */
export function seriesUsedLast(all: Iterable<Series>): Series | undefined {
  const used = [...all].filter((series) => series.lastUsedAt !== undefined);
  return used.sort((a, b) => Number(b.lastUsedAt) - Number(a.lastUsedAt))[0];
}

/**
 * Ticks that a video gets when it is put in a series, of channels that are connected, and those that it loses: channels
 * that only its series before has ticked, where nothing is set and nothing was sent.
 * @param change the series that it leaves and the one that it comes into; undefined for none
 */
export async function ticksOfSeries(
  db: Database,
  videoId: string,
  { from, to }: { from: string | undefined; to: string | undefined },
): Promise<{ tick: string[]; untick: string[] }> {
  const channelsOf = async (owner: string | undefined) =>
    (owner ? (await defaultsOf(db, { layer: 'series', owner })).channels : undefined) ?? [];
  const [before, now, all, drops] = await Promise.all([
    channelsOf(from),
    channelsOf(to),
    allChannels(db),
    dropsOf(db, [videoId]),
  ]);
  const connected = all.filter(({ accountState, granted }) => accountState === 'connected' && granted);
  const isTicked = (id: string) => drops.some(({ channelId }) => channelId === id);
  const bare = drops.filter((drop) => {
    return drop.state === 'draft' && Object.keys(drop.own).length === 0 && drop.chosenPlaylists === undefined;
  });
  return {
    tick: now.filter((id) => connected.some((channel) => channel.id === id) && !isTicked(id)),
    untick: bare.map(({ channelId }) => channelId).filter((id) => before.includes(id) && !now.includes(id)),
  };
}
