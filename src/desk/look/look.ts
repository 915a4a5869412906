import type { CutMeasures } from '@/core/delivery';
import { type BoardFacts, boardGroup, isWorking, overdueMinutes, STOPS, stopsBehind } from '@/core/drop';
import { siteIds } from '@/sites/registry';
import { allAccounts } from '@/store/accounts';
import { allChannels, type Channel, playlistsOf } from '@/store/channels';
import { betterCut, type Cut, cutById, cutInUse, cutsOf } from '@/store/cuts';
import { type Database, database } from '@/store/database';
import { type Drop, dropsOf } from '@/store/drops';
import { type Job, jobsOf } from '@/store/jobs';
import { markersOf } from '@/store/markers';
import { measurementOf } from '@/store/measurements';
import { cutsOfRenditions } from '@/store/renditions';
import { allVideos, videoById } from '@/store/videos';
import { found } from '../desk-error';
import { missingAt } from '../drop/readiness';
import { profileAt, recordsOf } from '../drop/record';
import { site } from '../site/session';
import type { BoardView, ChannelsView, ChannelView, CutView, DropView, MarkersView } from './views';

/** @param job the reading of it, where it is not read yet */
export function cutView(cut: Cut, job?: Job): CutView {
  const { id, fileName, state, size, received, facts, refusal, fingerprint } = cut;
  return {
    id,
    fileName,
    state,
    size,
    received,
    facts,
    refusal,
    fingerprint,
    stalled: isStalled(cut),
    reading: state === 'reading' ? job?.progress : undefined,
    setAside: state === 'reading' && job?.state === 'set aside' ? (job.trouble ?? '') : undefined,
  };
}

/** How far one cut is. @throws DeskError where there is none */
export async function lookAtCut(id: string): Promise<CutView> {
  return cutView(found(await cutById(database(), id), 'cut'));
}

/** The jobs that read these cuts, of those that are not read yet, by cut. */
export async function readingJobs(db: Database, cuts: readonly Cut[]): Promise<Map<string, Job>> {
  return jobsOf(
    db,
    'read',
    cuts.filter(({ state }) => state === 'reading').map(({ id }) => id),
  );
}

/**
 * After how many seconds without a byte, and without a word of the page that brings it, a file needs a person. Browsers let
 * a page that is not looked at speak once a minute.
 */
const STALLED_SECONDS = 150;

function isStalled({ state, heardAt }: Cut): boolean {
  return state === 'arriving' && heardAt !== undefined && Date.now() - heardAt.getTime() > STALLED_SECONDS * 1000;
}

/** @param cutAtSite the cut that the file at the site was made from, where that is known */
export function dropView(drop: Drop, inUse: Cut | undefined, cutAtSite: string | undefined): DropView {
  const { id, channelId, state, snag, waiting, progress, bytesSent, bytesTotal, link, openedTo } = drop;
  const isAtSite = state !== 'draft' && state !== 'removed' && state !== 'packing';
  return {
    id,
    channelId,
    state,
    snag,
    waiting,
    progress,
    bytesSent,
    bytesTotal,
    link,
    openedTo,
    stops: stopsBehind(state, snag),
    liveAt: drop.liveAt?.toISOString(),
    overdue: isWorking(state) ? overdueMinutes(drop.putOffSince, drop.putOffBy, new Date()) : undefined,
    otherFile: isAtSite && inUse?.state === 'ready' && cutAtSite !== undefined && cutAtSite !== inUse.id,
  };
}

/** A channel as pages show it. */
export function channelView(channel: Channel): ChannelView {
  return {
    id: channel.id,
    accountId: channel.accountId,
    name: channel.name,
    site: channel.site,
    siteName: site(channel.site).profile.name,
    address: channel.address,
    connected: channel.accountState === 'connected' && channel.granted,
  };
}

/** Everything that the Board shows, in a handful of queries however many videos there are. */
export async function lookAtBoard(): Promise<BoardView> {
  const db = database();
  const [videos, channels] = await Promise.all([allVideos(db), allChannels(db)]);
  const ids = videos.map((video) => video.id);
  const [cuts, drops] = await Promise.all([cutsOf(db, ids), dropsOf(db, ids)]);
  const cutsAtSites = await cutsOfRenditions(
    db,
    drops.flatMap(({ renditionId }) => renditionId ?? []),
  );
  const byVideo = new Map<string, Drop[]>(ids.map((id) => [id, []]));
  for (const drop of drops) byVideo.get(drop.videoId)?.push(drop);
  const used = new Set(drops.map((drop) => drop.channelId));
  const [missing, jobs] = await Promise.all([
    missingOfDrafts(db, drops, channels),
    readingJobs(db, [...cuts.values()].flat()),
  ]);
  return {
    channels: channels.map(channelView).filter((channel) => channel.connected || used.has(channel.id)),
    rows: videos.map((video) => {
      const [cut, better] = [cutInUse(cuts.get(video.id), video.cutId), betterCut(cuts.get(video.id))];
      const coming = better ?? cut;
      const ofVideo = byVideo.get(video.id) ?? [];
      const views = ofVideo.map((drop) => dropView(drop, cut, cutsAtSites.get(drop.renditionId ?? '')));
      return {
        videoId: video.id,
        title: video.title,
        group: boardGroup({
          cut: stateOnBoard(coming, jobs),
          drops: views.map((view) => (view.overdue === undefined ? view.state : 'overdue')),
        }),
        pictureId: video.pictureId,
        cut: cut && cutView(cut, jobs.get(cut.id)),
        betterCut: better && cutView(better, jobs.get(better.id)),
        drops: views.map((view) => ({ ...view, missing: missing.get(view.id) ?? 0 })),
      };
    }),
  };
}

function stateOnBoard(cut: Cut | undefined, jobs: ReadonlyMap<string, Job>): BoardFacts['cut'] {
  if (!cut) return 'none';
  if (isStalled(cut)) return 'stalled';
  return cut.state === 'reading' && jobs.get(cut.id)?.state === 'set aside' ? 'set aside' : cut.state;
}

/** How many things keep each drop from being sent that has not been, by drop. */
async function missingOfDrafts(
  db: Database,
  drops: readonly Drop[],
  channels: readonly Channel[],
): Promise<Map<string, number>> {
  const drafts = drops.filter((drop) => drop.state === 'draft');
  const records = await recordsOf(db, [...new Set(drafts.map((drop) => drop.videoId))]);
  const byId = new Map(channels.map((channel) => [channel.id, channel]));
  const counts = drafts.flatMap((drop): [string, number][] => {
    const [record, channel] = [records.get(drop.videoId), byId.get(drop.channelId)];
    if (!record || !channel) return [];
    return [[drop.id, missingAt(record, channel, drop, profileAt(site(channel.site).profile, channel)).length]];
  });
  return new Map(counts);
}

/** A video's markers, for the time line of its Sheet. */
export async function lookAtMarkers(videoId: string): Promise<MarkersView> {
  const db = database();
  // The version first: what changes in between is read once too often, never too seldom.
  const { markersVersion: version } = found(await videoById(db, videoId), 'video');
  return { version, markers: await markersOf(db, videoId) };
}

/** What is known of the sound and shots of a cut; undefined while it is being measured, or where it cannot be. */
export async function lookAtMeasures(cutId: string): Promise<CutMeasures | undefined> {
  return (await measurementOf(database(), cutId))?.found;
}

/** Everything that Channels shows: each site with its accounts and their channels. */
export async function lookAtChannels(): Promise<ChannelsView> {
  const db = database();
  const [accounts, channels] = await Promise.all([allAccounts(db), allChannels(db)]);
  const playlists = await playlistsOf(
    db,
    channels.map((channel) => channel.id),
  );
  return {
    sites: siteIds().map((id) => ({
      id,
      name: site(id).profile.name,
      kind: site(id).profile.kind,
      groups: site(id).profile.abilities.groups?.many,
      accounts: accounts
        .filter((account) => account.site === id)
        .map((account) => ({
          id: account.id,
          name: account.name,
          state: account.state,
          permits: account.scope.split(' ').flatMap((scope) => site(id).profile.scopes[scope] ?? []),
          channels: channels
            .filter((channel) => channel.accountId === account.id && channel.granted)
            .map((channel) => ({
              ...channelView(channel),
              lastUsedAt: channel.lastUsedAt?.toISOString(),
              playlists: playlists
                .filter((playlist) => playlist.channelId === channel.id)
                .map(({ sitePlaylistId, title, videos }) => ({ id: sitePlaylistId, title, videos })),
            })),
        })),
    })),
  };
}

/** One line for each drop, as the command line prints it. */
export async function lookAtStatus() {
  const board = await lookAtBoard();
  const channels = new Map(board.channels.map((channel) => [channel.id, channel]));
  return board.rows.flatMap((row) =>
    row.drops.map((drop) => ({
      video: row.videoId,
      title: row.title,
      channel: channels.get(drop.channelId)?.name ?? '',
      site: channels.get(drop.channelId)?.site ?? '',
      stop: STOPS[drop.stops - 1] ?? null,
      state: drop.state,
      link: drop.link ?? null,
      bytesSent: drop.bytesSent,
      bytesTotal: drop.bytesTotal,
    })),
  );
}
