import { type Actor, actorWords } from '@/core/actor';
import { declarationsInForce } from '@/core/declarations';
import { beforeFold, searchFindings } from '@/core/fitting';
import { hasShape, SHAPES, type Shape } from '@/core/framing';
import { isSame } from '@/core/parts';
import { type FileHabit, remediesFor, setOf, shownSize } from '@/core/renditions';
import { compare, type Fraction } from '@/core/time';
import type { SiteProfile } from '@/sites/contract';
import { actorNow } from '@/store/actor';
import { database } from '@/store/database';
import { dropsOf } from '@/store/drop/drops';
import { type EarlyUpload, earlyUploadsOf } from '@/store/drop/early-uploads';
import { type DropEvent, eventsOf } from '@/store/drop/events';
import { atSite, type KeptPart, partsAmiss, partsOfDrops } from '@/store/drop/parts';
import { matchedAmong, matchesOf } from '@/store/drop/rights-matches';
import type { Drop } from '@/store/drop/shape';
import { cutDigestsOf } from '@/store/files/renditions';
import { type Job, jobsOf } from '@/store/queue/jobs';
import { firstUndone, lastMade } from '@/store/record/changes';
import { betterCut, sameCutElsewhere } from '@/store/record/cuts';
import { measurementOf } from '@/store/record/measurements';
import { earlierVideos, videoById } from '@/store/record/videos';
import { allChannels, type Channel } from '@/store/site/channels';
import { actionsFor } from '../actions/act-on-drop';
import { changesSince } from '../drop/changes-since';
import { fileFindings } from '../drop/file-findings';
import { type MeantWords, meantWords } from '../drop/meant';
import { missingOf } from '../drop/readiness';
import { profileAt, recordOf, type VideoRecord } from '../drop/record';
import { tickedChannels } from '../drop/ticked';
import { fileSetAt, inForceAt, revisesWith } from '../layers/layers';
import { seriesUsedLast } from '../layers/recognise';
import { recordValues, type TickedChannel } from '../layers/record-values';
import { isToBeFiled } from '../rendition/plan-of-video';
import { site } from '../site/session';
import { alreadySentFindings } from './already-sent';
import { channelView, cutView, dropView, readingJobs } from './look';
import { renditionViews } from './look-at-renditions';
import { matchView } from './match-view';
import type { EarlyView, SheetChannel, SheetView } from './views';

/** The length of the cut that the markers were last said to fit, where the one in use has another. */
function lengthBefore({ video, cut, cuts, markers }: VideoRecord): Fraction | undefined {
  const said = cuts.find(({ id }) => id === video.timeLine.cutId) ?? cuts.find(({ state }) => state === 'ready');
  if (!said?.facts || !cut?.facts || said.id === cut.id || markers.length === 0) return undefined;
  return compare(said.facts.duration, cut.facts.duration) === 0 ? undefined : said.facts.duration;
}

/** What the Sheet shows of one channel. */
function sheetChannel(
  record: VideoRecord,
  channel: Channel,
  drop: Drop | undefined,
  events: readonly DropEvent[],
  earlier: readonly string[],
  digestAtSite: string | undefined,
  early: EarlyView | undefined,
  matched: ReadonlySet<string>,
  parts: readonly KeptPart[],
  giving: Job | undefined,
): SheetChannel {
  const profile = profileAt(site(channel.site).profile, channel);
  const meant = meantWords(record, channel, drop, profile);
  const { words, leftOut } = meant.fitted;
  const fields = inForceAt(record.layers, record.video, channel, drop);
  return {
    ...channelView(channel),
    ticked: drop !== undefined,
    rules: profile,
    groups: profile.abilities.groups,
    playlists: record.layers.playlists
      .filter((playlist) => playlist.channelId === channel.id)
      .map(({ sitePlaylistId: id, title, videos }) => ({ id, title, videos })),
    chosenPlaylists: meant.playlists,
    playlistsFrom: drop?.chosenPlaylists ? [{ layer: 'drop', name: channel.name }] : fields.playlists.from,
    unknownPlaylists: meant.unknownPlaylists,
    missing: missingOf(record, meant, profile),
    words,
    leftOut,
    shownFirst: profile.fold && beforeFold(words.text, profile.fold),
    ...textOfRecord(record, channel, drop, words.text, profile),
    search: searchFindings({
      title: profile.title ? words.title : record.video.title,
      phrase: record.video.title,
      text: words.text,
      tags: typeof profile.tags === 'object' ? words.tags : [],
      channel: channel.name,
      earlier,
    }),
    own: drop?.own ?? {},
    values: fields,
    beneath: drop ? inForceAt(record.layers, record.video, channel, { ...drop, own: {} }) : fields,
    drop: drop && {
      ...dropView(drop, record.cut, digestAtSite, profile.abilities, {
        matched: matched.has(drop.id),
        amiss: drop.state === 'live' ? partsAmiss(parts) : undefined,
        giving,
      }),
      actions: actionsFor(drop, profile, meant.end),
    },
    early,
    events: events
      .filter((event) => event.dropId === drop?.id)
      .map(({ id, at, kind, says, by }) => ({ id, at: at.toISOString(), kind, says, by: byWords(by) })),
    // What is on its way there goes by itself.
    changes: giving?.state === 'waiting' ? [] : changesSince(record, channel, drop, atSite(parts), meant),
    layersChanged: haveLayersChanged(record, channel, drop, meant, profile),
  };
}

/** The text that the record gives a channel, beside one that is written for it by hand. */
function textOfRecord(
  record: VideoRecord,
  channel: Channel,
  drop: Drop | undefined,
  text: string,
  profile: SiteProfile,
): Pick<SheetChannel, 'recordText' | 'recordMoved'> {
  if (drop?.own.text === undefined) return { recordText: text, recordMoved: false };
  const { text: _text, textOver, ...own } = drop.own;
  const recordText = meantWords(record, channel, { ...drop, own }, profile).fitted.words.text;
  return { recordText, recordMoved: textOver !== undefined && textOver !== recordText };
}

/** Whether defaults or links would give a drop something else today than they gave it when it was sent. */
function haveLayersChanged(
  record: VideoRecord,
  channel: Channel,
  drop: Drop | undefined,
  meant: MeantWords,
  profile: SiteProfile,
): boolean {
  if (drop?.state !== 'held' && drop?.state !== 'live') return false;
  const anew = { ...drop, sentWith: revisesWith(record.layers, record.video, channel, drop) };
  return !isSame(meantWords(record, channel, anew, profile).parts, meant.parts);
}

/** Who did something, to who reads it now. */
const byWords = (by: Actor): string => actorWords(by, actorNow().who, (id) => site(id).profile.name);

/** How far the files are that go up before their drops are sent, by drop. */
async function earlyViews(dropIds: readonly string[]): Promise<Map<string, EarlyView>> {
  const db = database();
  const uploads = await earlyUploadsOf(db, dropIds);
  const jobs = await jobsOf(
    db,
    'early',
    [...uploads.values()].map(({ id }) => id),
  );
  const view = ({ id, link, bytesSent, bytesTotal }: EarlyUpload): EarlyView => {
    const { progress, trouble, state } = jobs.get(id) ?? {};
    // Bytes that have left may still be in the line's buffers: it is there once its job is done.
    const there = state === 'done' && bytesTotal > 0 && bytesSent === bytesTotal;
    return { link, state: there ? 'there' : state === 'waiting' ? 'going up' : 'stopped', progress, trouble };
  };
  return new Map([...uploads].map(([dropId, upload]) => [dropId, view(upload)]));
}

/** The shapes that the file settings of a video ask for, where its picture has another. */
function shapesAsked({ layers, video, cut }: VideoRecord, ticked: readonly TickedChannel[], file: FileHabit): Shape[] {
  const facts = cut?.facts;
  if (!facts) return [];
  const open = ticked.filter(({ drop }) => isToBeFiled(drop));
  const sets = [
    setOf(file, layers.fileSets)?.settings.shape,
    ...open.map(({ channel, drop }) => fileSetAt(layers, video, channel, drop)?.settings.shape),
  ];
  return SHAPES.filter((shape) => sets.includes(shape) && !hasShape(shownSize(facts.video), shape));
}

/** Everything that the Sheet of one video shows. @throws DeskError where there is no such video */
export async function lookAtSheet(videoId: string): Promise<SheetView> {
  const db = database();
  const record = await recordOf(db, videoId);
  const { video, cut, cuts, picture, captions, layers } = record;
  const [all, drops] = await Promise.all([allChannels(db), dropsOf(db, [videoId])]);
  const dropAt = new Map(drops.map((drop) => [drop.channelId, drop]));
  const shown = all.filter((channel) => channelView(channel).connected || dropAt.has(channel.id));
  const [earlier, events, last, next, measurement] = await Promise.all([
    earlierVideos(db, videoId, [...dropAt.keys()]),
    eventsOf(
      db,
      drops.map((drop) => drop.id),
    ),
    lastMade(db, videoId),
    firstUndone(db, videoId),
    cut && measurementOf(db, cut.id),
  ]);
  const dropIds = drops.map(({ id }) => id);
  const [digestsAtSites, same, jobs, early, matches, matched, parts, giving] = await Promise.all([
    cutDigestsOf(
      db,
      drops.flatMap(({ renditionId }) => renditionId ?? []),
    ),
    cut && sameCutElsewhere(db, cut),
    readingJobs(db, cuts),
    earlyViews(drops.flatMap(({ id, state }) => (state === 'draft' ? id : []))),
    matchesOf(db, dropIds),
    matchedAmong(db, dropIds),
    partsOfDrops(db, dropIds),
    jobsOf(db, 'give', dropIds),
  ]);
  const sameVideo = same && (await videoById(db, same.videoId));
  const ticked = tickedChannels(all, drops);
  const { values, marks } = recordValues(layers, video, ticked);
  const [renditions, sentBefore] = await Promise.all([
    renditionViews(record, ticked, measurement?.found),
    alreadySentFindings(db, record, ticked),
  ]);
  const better = betterCut(cuts);
  const series = layers.series.get(video.seriesId ?? '');
  const offer = series ? undefined : seriesUsedLast(layers.series.values());
  return {
    id: video.id,
    title: video.title,
    titleFrom: video.titleFrom,
    summary: video.summary,
    episode: video.episode,
    series: series && { id: series.id, name: series.name, from: video.seriesFrom ?? 'person' },
    seriesOffer: offer && { id: offer.id, name: offer.name },
    allSeries: [...layers.series.values()].map(({ id, name }) => ({ id, name })),
    own: video.own,
    values,
    marks,
    shelf: layers.shelf,
    switchedOff: declarationsInForce(values).switchedOff,
    chapterChoice: record.choice,
    chaptersChosen: video.chapterChoice ? 'here' : record.choice.colours.length > 0 ? 'by the series' : undefined,
    meantBlanks: video.meantBlanks,
    wavedThrough: video.wavedThrough,
    fileFindings: [...sentBefore, ...fileFindings(record, measurement?.found)],
    timeLine: video.timeLine,
    markersVersion: video.markersVersion,
    deleteAsked: video.deleteAskedAt !== undefined,
    updatedAt: video.updatedAt.toISOString(),
    cut: cut && cutView(cut, jobs.get(cut.id)),
    betterCut: better && cutView(better, jobs.get(better.id)),
    sameFile: sameVideo && { videoId: sameVideo.id, title: sameVideo.title },
    lengthBefore: lengthBefore(record),
    measured: measurement?.state,
    captions,
    picture: picture && {
      id: picture.id,
      width: picture.width,
      height: picture.height,
      size: picture.size,
      source: picture.source,
      byHabit: picture.byHabit,
    },
    channels: shown.map((channel) =>
      sheetChannel(
        record,
        channel,
        dropAt.get(channel.id),
        events,
        earlier.filter(({ channelId }) => channelId === channel.id).map(({ title }) => title),
        digestsAtSites.get(dropAt.get(channel.id)?.renditionId ?? ''),
        early.get(dropAt.get(channel.id)?.id ?? ''),
        matched,
        parts.get(dropAt.get(channel.id)?.id ?? '') ?? [],
        giving.get(dropAt.get(channel.id)?.id ?? ''),
      ),
    ),
    matches: matches.flatMap((match) => {
      const drop = drops.find(({ id }) => id === match.dropId);
      const { id, work, owner, inCut, open, current } = matchView(match, drop as Drop, record);
      return current ? [{ id, work, owner, inCut, open }] : [];
    }),
    renditions,
    remedies: remediesFor(video.remedies, cut?.id),
    framings: video.framings,
    shapes: shapesAsked(record, ticked, values.file),
    canUndo: last !== undefined,
    canRedo: next !== undefined,
  };
}
