import type { CutMeasures } from '@/core/delivery';
import { goesUpAnew, isWorking, overdueMinutes, STOPS, stopsBehind } from '@/core/drop';
import { PARTS, type PartName } from '@/core/parts';
import type { SiteAbilities } from '@/sites/contract';
import { siteIds } from '@/sites/registry';
import { type Database, database } from '@/store/database';
import { liveRounds } from '@/store/drop/claims';
import { dropsOf } from '@/store/drop/drops';
import type { PartsAmiss } from '@/store/drop/parts';
import type { Drop } from '@/store/drop/shape';
import { type Job, jobsOf } from '@/store/queue/jobs';
import { STALLED_SECONDS } from '@/store/record/board';
import { type Cut, cutById } from '@/store/record/cuts';
import { markersOf } from '@/store/record/markers';
import { measurementOf } from '@/store/record/measurements';
import { allVideos, videoById } from '@/store/record/videos';
import { allAccounts } from '@/store/site/accounts';
import { allChannels, type Channel, playlistsOf } from '@/store/site/channels';
import { found } from '../desk-error';
import { goesBehindLink } from '../drop/better-file';
import { isOtherFile } from '../drop/other-file';
import { site } from '../site/session';
import type { ChannelsView, ChannelView, CutView, DropView, MarkersView } from './views';

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
    gone: cut.goneAt !== undefined,
    stalled: isStalled(cut),
    reading: state === 'reading' ? job?.progress : undefined,
    setAside: state === 'reading' && job?.state === 'set aside' ? (job.trouble ?? '') : undefined,
  };
}

/** How far one cut is. @throws DeskError where there is none */
export async function lookAtCut(id: string): Promise<CutView> {
  return cutView(found(await cutById(database(), id), 'file'));
}

/** The jobs that read these cuts, of those that are not read yet, by cut. */
export async function readingJobs(db: Database, cuts: readonly Cut[]): Promise<Map<string, Job>> {
  return jobsOf(
    db,
    'read',
    cuts.filter(({ state }) => state === 'reading').map(({ id }) => id),
  );
}

/** Whether a file is on its way and nothing has come for too long. */
export function isStalled({ state, heardAt }: Cut): boolean {
  return state === 'arriving' && heardAt !== undefined && Date.now() - heardAt.getTime() > STALLED_SECONDS * 1000;
}

/** Drops by their videos, in the order in which they are given. */
export function dropsByVideo(drops: readonly Drop[]): Map<string, Drop[]> {
  const byVideo = new Map<string, Drop[]>();
  for (const drop of drops) byVideo.set(drop.videoId, [...(byVideo.get(drop.videoId) ?? []), drop]);
  return byVideo;
}

const labelsOf = (parts: readonly PartName[] = []) => [...new Set(parts.map((part) => PARTS[part].label))];

/** What holds of a live drop beside what is kept of it. */
interface LiveNow {
  matched: boolean;
  amiss?: PartsAmiss | undefined;
  giving?: Job | undefined;
}

/**
 * @param digestAtSite of the cut that the file at the site was made from, where that is known; then what its site can do
 * @param now of a live one: whether a rights match waits for a person, the parts that are not as they should be at its site, and
 *   what brings its changes there
 */
export function dropView(
  drop: Drop,
  inUse: Cut | undefined,
  digestAtSite: string | undefined,
  { swapsFiles = false }: Pick<SiteAbilities, 'swapsFiles'>,
  { matched, amiss, giving }: LiveNow,
): DropView {
  const { id, channelId, state, snag, waiting, progress, bytesSent, bytesTotal, link, openedTo } = drop;
  const isAtSite = state !== 'draft' && state !== 'removed' && state !== 'packing';
  const otherFile = isAtSite && isOtherFile(inUse, digestAtSite);
  return {
    id,
    channelId,
    state,
    snag,
    waiting,
    progress,
    bytesSent,
    bytesTotal,
    // Until a better file is checked, the link is that of the video there.
    link: drop.former?.link ?? link,
    formerLinks: drop.formerLinks ?? [],
    openedTo,
    closedFrom: drop.closedFrom,
    stops: stopsBehind(state, snag),
    liveAt: drop.liveAt?.toISOString(),
    opensAt: (drop.wordAt ?? drop.opensAt)?.toISOString(),
    onWord: drop.wordAt !== undefined,
    overdue: isWorking(state) ? overdueMinutes(drop.putOffSince, drop.putOffBy, state, new Date()) : undefined,
    changedThere: labelsOf(amiss?.changedThere),
    notTaken: labelsOf(amiss?.notTaken),
    matched,
    giving: giving?.state === 'waiting' ? { trouble: giving.trouble } : undefined,
    versions: drop.versions ?? [],
    otherFileStays: !swapsFiles,
    replacing: drop.former !== undefined,
    linkEnds:
      link !== undefined &&
      !drop.former &&
      snag !== undefined &&
      goesUpAnew(snag, otherFile) &&
      !goesBehindLink(drop, { swapsFiles }),
    otherFile,
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
  const [accounts, channels, rounds] = await Promise.all([allAccounts(db), allChannels(db), liveRounds(db)]);
  const roundOf = ({ id }: Channel) => {
    const { live = 0, unread = 0, readSince } = rounds.get(id) ?? {};
    return { live, unread, readSince: readSince?.toISOString() };
  };
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
        .filter((account) => account.site === id && account.state !== 'removed')
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
              round: roundOf(channel),
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
  const db = database();
  const [videos, channels] = await Promise.all([allVideos(db), allChannels(db)]);
  const byVideo = dropsByVideo(
    await dropsOf(
      db,
      videos.map(({ id }) => id),
    ),
  );
  const byId = new Map(channels.map((channel) => [channel.id, channel]));
  return videos.flatMap(({ id, title }) =>
    (byVideo.get(id) ?? []).map((drop) => ({
      video: id,
      drop: drop.id,
      title,
      channel: byId.get(drop.channelId)?.name ?? '',
      site: byId.get(drop.channelId)?.site ?? '',
      stop: STOPS[stopsBehind(drop.state, drop.snag) - 1] ?? null,
      state: drop.state,
      link: drop.link ?? null,
      bytesSent: drop.bytesSent,
      bytesTotal: drop.bytesTotal,
    })),
  );
}
