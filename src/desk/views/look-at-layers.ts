import { fieldsTaken } from '@/core/declarations';
import { inForce, type LayerAt, partsByPattern, patternFinding, sourceWords } from '@/core/defaults';
import { dayInWords } from '@/core/fitting';
import { partsWithTexts } from '@/core/parts';
import { shelfNamesIn } from '@/core/words';
import { SITE_PROFILES } from '@/sites/profiles';
import { type Database, database } from '@/store/database';
import { linksSent } from '@/store/drop/parts';
import { firstUndone, lastMade } from '@/store/record/changes';
import { filesInNoSeries, recentFileNames } from '@/store/record/cuts';
import type { LayerKey } from '@/store/record/defaults';
import { type Series, seriesById } from '@/store/record/series';
import { allShelfLinks } from '@/store/record/shelf';
import { newestVideo, videosBySeries, videosForLayers } from '@/store/record/videos';
import { allChannels, type Channel } from '@/store/site/channels';
import { SERIES_SUBJECT, SHELF_SUBJECT } from '../changes/changes';
import { layerKey } from '../defaults/defaults';
import { found } from '../desk-error';
import { recordOf } from '../drop/record';
import { type KeptLayers, keptLayers } from '../layers/layers';
import { channelView } from './look';
import type { LayerView, LinksView, SeriesListView, ShelfUse } from './views';

/** Whether the last change of a thing can be taken back, and made again. */
async function canStep(subject: string): Promise<{ canUndo: boolean; canRedo: boolean }> {
  const [last, next] = await Promise.all([lastMade(database(), subject), firstUndone(database(), subject)]);
  return { canUndo: last !== undefined, canRedo: next !== undefined };
}

/** Every series, with how many videos it has and what it sets. */
export async function lookAtSeriesList(): Promise<SeriesListView> {
  const db = database();
  const [kept, videos, steps] = await Promise.all([keptLayers(db), videosBySeries(db), canStep(SERIES_SUBJECT)]);
  return {
    ...steps,
    series: [...kept.series.values()].map(({ id, name, pattern, lastUsedAt }) => ({
      id,
      name,
      pattern,
      lastUsedAt: lastUsedAt?.toISOString(),
      videos: videos.get(id) ?? 0,
      sets: kept.defaults.get(id) ?? {},
    })),
  };
}

/** The layers beneath a kept one: beneath a channel its site. What lies beneath a series differs by channel. */
function beneath(kept: KeptLayers, { layer }: Pick<LayerKey, 'layer'>, site: string | undefined): LayerAt[] {
  if (layer !== 'channel' || !site) return [];
  return [{ layer: 'site', name: SITE_PROFILES[site]?.name ?? site, values: kept.defaults.get(site) ?? {} }];
}

/** Everything that the page of one layer's defaults shows. @throws DeskError where there is no such layer */
export async function lookAtLayer(where: unknown): Promise<LayerView> {
  const db = database();
  const key = await layerKey(db, where);
  const { layer, owner } = key;
  const [kept, all, steps, files, newest] = await Promise.all([
    keptLayers(db),
    allChannels(db),
    canStep(owner),
    layer === 'series' ? recentFileNames(db) : [],
    layer === 'series' ? newestVideo(db, owner) : undefined,
  ]);
  const series = layer === 'series' ? found(await seriesById(db, owner), 'series') : undefined;
  const channel = all.find(({ id }) => id === owner);
  const site = layer === 'site' ? owner : channel?.site;
  const mine = all.filter((each) =>
    layer === 'channel' ? each.id === owner : layer === 'series' || each.site === site,
  );
  const profiles = layer === 'series' ? Object.values(SITE_PROFILES) : [SITE_PROFILES[site ?? '']];
  return {
    layer,
    owner,
    ...steps,
    shelf: kept.shelf,
    name: series?.name ?? channel?.name ?? SITE_PROFILES[owner]?.name ?? owner,
    siteName: channel && SITE_PROFILES[channel.site]?.name,
    pattern: series?.pattern,
    set: kept.defaults.get(owner) ?? {},
    beneath: inForce(beneath(kept, key, site)),
    declares: [...new Set(profiles.flatMap((profile) => fieldsTaken(profile?.declares)))],
    categories: profiles.flatMap((profile) => profile?.declares?.categories ?? []),
    hasGroups: profiles.some((profile) => profile?.abilities.groups),
    channels: mine.map(channelView).filter(({ connected }) => connected),
    playlists: [
      ...new Set(
        kept.playlists.filter(({ channelId }) => mine.some(({ id }) => id === channelId)).map(({ title }) => title),
      ),
    ],
    files,
    samePattern: series ? samePatternAs(series, kept.series.values()) : [],
    fitting: series ? await fittingVideos(db, series.pattern) : [],
    rules: profiles.flatMap((profile) => profile ?? []),
    sample: await sampleFor(newest ?? (await newestVideo(db)), kept, series?.name, channel ?? mine[0]),
  };
}

/** Names of other series whose files are known by the same pattern. */
function samePatternAs({ id, pattern }: Series, all: Iterable<Series>): string[] {
  const plain = (text: string) => text.trim().toLowerCase();
  if (plain(pattern) === '') return [];
  return [...all].filter((each) => each.id !== id && plain(each.pattern) === plain(pattern)).map(({ name }) => name);
}

/** Videos in no series whose file fits a pattern, the newest first. */
async function fittingVideos(db: Database, pattern: string): Promise<string[]> {
  if (pattern.trim() === '' || patternFinding(pattern)) return [];
  const files = await filesInNoSeries(db);
  return files.filter(({ fileName }) => partsByPattern(fileName, pattern)).map(({ videoId }) => videoId);
}

/** The words of a video to try a layer on; where there is no video yet, words that say what stands there. */
async function sampleFor(
  videoId: string | undefined,
  kept: KeptLayers,
  series: string | undefined,
  channel: Channel | undefined,
): Promise<LayerView['sample']> {
  const record = videoId === undefined ? undefined : await recordOf(database(), videoId);
  const names = {
    channel: channel?.name ?? 'the channel',
    series: series ?? kept.series.get(record?.video.seriesId ?? '')?.name ?? 'the series',
    episode: record?.video.episode || '1',
    date: dayInWords((record?.cut?.createdAt ?? new Date()).toISOString().slice(0, 10), ''),
  };
  if (!record) {
    const [title, summary] = ['The title that is typed', 'The lines about the video that are typed.'];
    return { title, summary, chapters: [], duration: undefined, names };
  }
  const { title, summary } = record.video;
  const lines = summary.trim() === '' ? 'The lines about the video that are typed.' : summary;
  return { title, summary: lines, chapters: record.chapters, duration: record.cut?.facts?.duration, names };
}

/** Where each link of the shelf is used: in layers, in videos, and in what was sent, with the address that went out. */
export async function lookAtLinks(): Promise<LinksView> {
  const db = database();
  const [links, kept, channels, videos, sent, steps] = await Promise.all([
    allShelfLinks(db),
    keptLayers(db),
    allChannels(db),
    videosForLayers(db),
    linksSent(db, partsWithTexts()),
    canStep(SHELF_SUBJECT),
  ]);
  const names = new Map<string, Pick<LayerAt, 'layer' | 'name'>>();
  for (const { id, name } of kept.series.values()) names.set(id, { layer: 'series', name });
  for (const { id, name } of channels) names.set(id, { layer: 'channel', name });
  for (const [id, { name }] of Object.entries(SITE_PROFILES)) names.set(id, { layer: 'site', name });
  const titles = new Map(videos.map(({ id, title }) => [id, title]));
  const uses: (ShelfUse & { link: string })[] = [];
  for (const [owner, values] of kept.defaults) {
    const at = names.get(owner);
    if (!at) continue;
    for (const link of usedBy(values)) {
      uses.push({ link, kind: 'layer', layer: at.layer, owner, says: sourceWords([at]) });
    }
  }
  for (const { id, title, own } of videos) {
    for (const link of usedBy(own)) uses.push({ link, kind: 'video', videoId: id, says: title });
  }
  const shelf = new Map(links.map((link) => [link.name, link]));
  for (const { videoId, channelId, link, url } of sent) {
    const says = `${titles.get(videoId) ?? ''} on ${names.get(channelId)?.name ?? ''}`;
    uses.push({ link, kind: 'sent', videoId, says, older: shelf.get(link)?.url === url ? undefined : url });
  }
  return {
    ...steps,
    links: links.map((link) => ({ ...link, uses: uses.filter((use) => use.link === link.name) })),
    missing: [...new Set(uses.filter(({ link, kind }) => !shelf.has(link) && kind !== 'sent').map(({ link }) => link))],
  };
}

/** The links of the shelf that a layer's words name. */
function usedBy({ template = '', titlePattern = '', links }: LayerAt['values']): string[] {
  const listed = links?.items.flatMap((item) => ('shelf' in item ? [item.shelf] : [])) ?? [];
  return [...new Set([...shelfNamesIn(template), ...shelfNamesIn(titlePattern), ...listed])];
}
