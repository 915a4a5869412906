import { type InForce, inForce, type LayerAt, type LayerValues, valuesOf } from '@/core/defaults';
import type { RecordWords } from '@/core/drop';
import { dayInWords } from '@/core/fitting';
import type { Framings } from '@/core/framing';
import { type FileSet, type Remedies, remediesFor, setOf } from '@/core/renditions';
import { linksOf, type Shelf, shelfNamesIn } from '@/core/words';
import { SITE_PROFILES } from '@/sites/profiles';
import type { Database } from '@/store/database';
import type { Drop, SentWith } from '@/store/drop/shape';
import { allDefaults } from '@/store/record/defaults';
import { allFileSets } from '@/store/record/file-sets';
import { allSeries, type Series } from '@/store/record/series';
import { shelf } from '@/store/record/shelf';
import type { Video } from '@/store/record/videos';
import { allPlaylists, type Channel, type Playlist } from '@/store/site/channels';

/** Everything that layers give, as it is kept now. */
export interface KeptLayers {
  /** What each site, channel and series sets, by its owner. */
  defaults: ReadonlyMap<string, LayerValues>;
  series: ReadonlyMap<string, Series>;
  shelf: Shelf;
  /** Sets of file settings that people made. */
  fileSets: readonly FileSet[];
  playlists: readonly Playlist[];
}

/** Reads all layers, in five queries however many there are. */
export async function keptLayers(db: Database): Promise<KeptLayers> {
  const [defaults, series, links, playlists, fileSets] = await Promise.all([
    allDefaults(db),
    allSeries(db),
    shelf(db),
    allPlaylists(db),
    allFileSets(db),
  ]);
  return { defaults, series: new Map(series.map((each) => [each.id, each])), shelf: links, playlists, fileSets };
}

type LayeredVideo = Pick<Video, 'own' | 'seriesId'>;
type SentVideo = LayeredVideo & Pick<Video, 'remedies' | 'framings'>;
type LayeredDrop = Pick<Drop, 'own' | 'sentWith' | 'state'>;

/** What a drop was sent with, while that holds. */
const stillSentWith = (drop: LayeredDrop | undefined): SentWith | undefined =>
  drop && drop.state !== 'draft' && drop.state !== 'removed' ? drop.sentWith : undefined;

/**
 * The layers of a video on a channel, from the furthest to the nearest; without a channel those of the record alone. Of a
 * drop that was sent, the outer ones are as they were then.
 * @param channel where not given, only the layers that hold for every channel
 * @param drop what is set for this video on this channel
 */
export function layersAt(
  kept: KeptLayers,
  video: LayeredVideo,
  channel?: Pick<Channel, 'id' | 'site' | 'name'>,
  drop?: LayeredDrop,
): LayerAt[] {
  const sent = stillSentWith(drop);
  const series = kept.series.get(video.seriesId ?? '');
  const layers: LayerAt[] = [];
  if (channel) {
    const { site, id, name } = channel;
    layers.push({
      layer: 'site',
      name: SITE_PROFILES[site]?.name ?? site,
      values: sent?.site ?? kept.defaults.get(site) ?? {},
    });
    layers.push({ layer: 'channel', name, values: sent?.channel ?? kept.defaults.get(id) ?? {} });
  }
  const ofSeries = sent?.series ?? kept.defaults.get(video.seriesId ?? '') ?? {};
  layers.push({ layer: 'series', name: sent?.seriesName ?? series?.name ?? '', values: ofSeries });
  layers.push({ layer: 'video', name: '', values: video.own });
  if (channel && drop) layers.push({ layer: 'drop', name: channel.name, values: drop.own });
  return layers;
}

/** Of the shelf, the links that a drop's words use. */
function linksUsed(kept: KeptLayers, video: LayeredVideo, channel: Channel, drop: LayeredDrop): Shelf {
  const values = valuesOf(inForce(layersAt(kept, video, channel, drop)));
  const used = new Set([
    ...shelfNamesIn(values.template),
    ...shelfNamesIn(values.titlePattern),
    ...values.links.flatMap((item) => ('shelf' in item ? [item.shelf] : [])),
  ]);
  return Object.fromEntries(Object.entries(kept.shelf).filter(([name]) => used.has(name)));
}

/**
 * What a sent drop's changes go out with: what it was sent with, and links that its words use only since.
 * @param drop of the video on the channel
 */
export function goesOnWith(kept: KeptLayers, video: SentVideo, channel: Channel, drop: LayeredDrop): SentWith {
  const { sentWith } = drop;
  if (!sentWith) return sendsWith(kept, video, channel, drop);
  return { ...sentWith, shelf: { ...linksUsed(kept, video, channel, drop), ...sentWith.shelf } };
}

/**
 * What a drop that is sent now is sent with: the outer layers, and of the shelf the links that its words use.
 * @param drop of the video on the channel
 */
export function sendsWith(kept: KeptLayers, video: SentVideo, channel: Channel, drop: LayeredDrop): SentWith {
  return {
    site: kept.defaults.get(channel.site) ?? {},
    channel: kept.defaults.get(channel.id) ?? {},
    series: kept.defaults.get(video.seriesId ?? '') ?? {},
    seriesName: kept.series.get(video.seriesId ?? '')?.name ?? '',
    shelf: linksUsed(kept, video, channel, { ...drop, sentWith: undefined }),
    fileSet: fileSetAt(kept, video, channel, { ...drop, sentWith: undefined }),
    remedies: video.remedies,
    mends: drop.own.mends,
    framings: video.framings,
  };
}

/**
 * What changes of a drop at its site go out with where today's layers are wanted. The file there stays as it was made, so
 * that chapters and captions keep to it.
 */
export function revisesWith(kept: KeptLayers, video: SentVideo, channel: Channel, drop: LayeredDrop): SentWith {
  const { fileSet, remedies, mends, framings } = drop.sentWith ?? {};
  return { ...sendsWith(kept, video, channel, drop), fileSet, remedies, mends, framings };
}

/**
 * The file settings of a video on a channel: of a drop that was sent, as they were then.
 * @returns undefined where the file is kept as it is
 */
export function fileSetAt(
  kept: KeptLayers,
  video: LayeredVideo,
  channel: Pick<Channel, 'id' | 'site' | 'name'>,
  drop: LayeredDrop | undefined,
): FileSet | undefined {
  const habit = valuesOf(inForce(layersAt(kept, video, channel, drop))).file;
  const sent = stillSentWith(drop)?.fileSet;
  return sent && habit.way === 'set' && habit.set === sent.id ? sent : setOf(habit, kept.fileSets);
}

/** What is put right in the file of a drop: of one that was sent, what was so then. @param cutId of the file in use */
export function remediesAt(
  video: Pick<Video, 'remedies'>,
  drop: LayeredDrop | undefined,
  cutId: string | undefined,
): Remedies {
  const sent = stillSentWith(drop);
  return remediesFor(sent ? sent.remedies : video.remedies, cutId, sent ? sent.mends : drop?.own.mends);
}

/** Where the frame of a drop's file is: of one that was sent, where it was then. */
export function framingsAt(video: Pick<Video, 'framings'>, drop: LayeredDrop | undefined): Framings {
  const sent = stillSentWith(drop);
  return sent ? (sent.framings ?? {}) : video.framings;
}

/**
 * What is in force for a video on one channel, with where each value came from.
 * @param drop undefined where the channel is not ticked
 */
export function inForceAt(kept: KeptLayers, video: Video, channel: Channel, drop: LayeredDrop | undefined): InForce {
  return inForce(layersAt(kept, video, channel, drop));
}

/**
 * What the words of a video on one channel are made from.
 * @param drop undefined where the channel is not ticked
 */
export function wordsAt(
  kept: KeptLayers,
  video: Video,
  channel: Channel,
  drop: LayeredDrop | undefined,
): RecordWords & { missingLinks: string[] } {
  const sent = stillSentWith(drop);
  const values = valuesOf(inForceAt(kept, video, channel, drop));
  // A link that the video names only since it was sent is as it is now.
  const links: Shelf = { ...kept.shelf, ...sent?.shelf };
  const named = linksOf(values.links, links);
  return {
    title: video.title,
    summary: video.summary,
    titlePattern: values.titlePattern,
    template: values.template,
    tags: values.tags,
    links: named.links,
    missingLinks: named.missing,
    declarations: values,
    meantBlanks: video.meantBlanks,
    names: {
      channel: channel.name,
      series: sent?.seriesName ?? kept.series.get(video.seriesId ?? '')?.name ?? '',
      episode: video.episode,
      date: dayInWords(values.recordedOn || video.createdAt.toISOString().slice(0, 10), values.language),
      shelf: links,
    },
  };
}

/**
 * The playlists that a video is put in on a channel, by their ids there, and titles that the channel has none of.
 * @param wanted titles that are in force
 * @param chosen ids that were chosen by hand for this channel; undefined where none were
 */
export function playlistsAt(
  kept: KeptLayers,
  wanted: readonly string[],
  channelId: string,
  chosen: readonly string[] | undefined,
): { ids: string[]; unknown: string[] } {
  if (chosen) return { ids: [...chosen], unknown: [] };
  const ofChannel = kept.playlists.filter((playlist) => playlist.channelId === channelId);
  const plain = (title: string) => title.trim().toLocaleLowerCase('en');
  const found = wanted.map((title) => ofChannel.find((playlist) => plain(playlist.title) === plain(title)));
  return {
    ids: found.flatMap((playlist) => playlist?.sitePlaylistId ?? []),
    unknown: wanted.filter((_, index) => found[index] === undefined),
  };
}
