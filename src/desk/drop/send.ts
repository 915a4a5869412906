import { mayMove } from '@/core/drop';
import { agreedByChanges, agreedBySending } from '@/core/release';
import { databaseTime } from '@/store/clock';
import { database } from '@/store/database';
import { dropsOf } from '@/store/drop/drops';
import { deleteEarlyUpload, earlyUploadsOf, goneBefore } from '@/store/drop/early-uploads';
import { atSite, partsOfDrop } from '@/store/drop/parts';
import type { DropFields } from '@/store/drop/rows';
import { type Drop, linksLeft } from '@/store/drop/shape';
import { cancelJob } from '@/store/queue/jobs';
import { setVideo } from '@/store/record/videos';
import { channelById } from '@/store/site/channels';
import { found } from '../desk-error';
import { goesOnWith, sendsWith } from '../layers/layers';
import { log } from '../log';
import { site } from '../site/session';
import { changesSince } from './changes-since';
import { giveLive, staysLive } from './give-live';
import { makeMove } from './make-move';
import { meantWords } from './meant';
import { missingAt } from './readiness';
import { profileAt, recordOf, type VideoRecord } from './record';

/** What became of sending a video: the channels that it went to, and those that it is not ready for. */
export interface Sent {
  sent: string[];
  notReady: { channel: string; missing: string[] }[];
}

/** Fields of a drop that starts from the beginning at the site. */
export const ANEW: DropFields = {
  begunWith: undefined,
  siteVideoId: undefined,
  link: undefined,
  carry: undefined,
  bytesSent: 0,
  liveAt: undefined,
  openAsked: false,
  openedTo: undefined,
  confirmedTo: undefined,
  asking: undefined,
  siteOpensAt: undefined,
  confirmedOpensAt: undefined,
  releasedFor: undefined,
  versions: undefined,
  speeds: undefined,
  readAt: undefined,
  former: undefined,
  closedFrom: undefined,
  lateTold: undefined,
};

/** What keeps a drop from going to its channel, with the channel. @param now the drop as it would go */
async function readiness(record: VideoRecord, drop: Drop, now: Drop = drop) {
  const channel = found(await channelById(database(), drop.channelId), 'channel');
  const profile = profileAt(site(channel.site).profile, channel);
  const missing = missingAt(record, channel, now, profile).map((each) => each.what);
  if (channel.accountState !== 'connected' || !channel.granted) missing.push('The channel is not connected');
  return { channel, profile, missing };
}

/**
 * Sends a video to every ticked channel that it is ready for and has not gone to yet. What is sent already is left alone,
 * so sending twice sends once.
 * @param channelIds only these of them, where given
 */
export async function sendVideo(videoId: string, channelIds?: readonly string[]): Promise<Sent> {
  const db = database();
  const record = await recordOf(db, videoId);
  const drops = (await dropsOf(db, [videoId])).filter((drop) => mayMove('send', drop.state));
  const result: Sent = { sent: [], notReady: [] };
  for (const drop of drops) {
    if (channelIds && !channelIds.includes(drop.channelId)) continue;
    const { channel, profile, missing } = await readiness(record, drop);
    if (missing.length > 0) {
      result.notReady.push({ channel: channel.name, missing });
      continue;
    }
    const fields = {
      ...ANEW,
      formerLinks: linksLeft(drop),
      sentAt: new Date(),
      sentWith: sendsWith(record.layers, record.video, channel, drop),
      agreed: agreedBySending(meantWords(record, channel, drop, profile), await databaseTime(db)),
      round: drop.state === 'removed' ? drop.round + 1 : drop.round,
    };
    await makeMove(drop, 'send', `Sent to ${channel.name}`, fields, async (trx) => {
      const early = (await earlyUploadsOf(trx, [drop.id], true)).get(drop.id);
      if (!early) return;
      // What has gone up already is not sent twice.
      Object.assign(fields, goneBefore(early));
      await deleteEarlyUpload(trx, early.id);
      await cancelJob(trx, 'early', early.id);
    });
    // Who sends it does not want it deleted any more.
    if (record.video.deleteAskedAt) await setVideo(db, videoId, { deleteAskedAt: undefined });
    result.sent.push(channel.name);
    log.info({ drop: drop.id, video: videoId, channel: channel.id }, 'drop sent');
  }
  return result;
}

/**
 * Sends what has changed of a video to the channels at which it stands, all that have a change or those named.
 * @param asks what of the layers goes along: those that it was sent with, or those of today
 */
export async function reviseVideo(
  videoId: string,
  channelIds?: readonly string[],
  asks: typeof sendsWith = goesOnWith,
): Promise<Sent> {
  const db = database();
  const record = await recordOf(db, videoId);
  const result: Sent = { sent: [], notReady: [] };
  for (const drop of await dropsOf(db, [videoId])) {
    const named = channelIds?.includes(drop.channelId) ?? true;
    if (!named || !mayMove('revise', drop.state)) continue;
    const toChannel = found(await channelById(db, drop.channelId), 'channel');
    const sentWith = asks(record.layers, record.video, toChannel, drop);
    const { channel, profile, missing } = await readiness(record, drop, { ...drop, sentWith });
    const meant = meantWords(record, channel, { ...drop, sentWith }, profile);
    const there = atSite(await partsOfDrop(db, drop));
    const changes = changesSince(record, channel, drop, there, meant);
    if (changes.length === 0 && !channelIds) continue;
    if (missing.length > 0) {
      result.notReady.push({ channel: channel.name, missing });
      continue;
    }
    const what = changes.length === 0 ? 'all of it once more' : changes.map(({ field }) => field).join(', ');
    const says = `Changes sent to the site: ${what}`;
    if (staysLive(drop, there, meant)) await giveLive(drop, says, sentWith);
    // A word that was given for what is changed now is to be given again.
    else {
      const agreed = agreedByChanges(meant, drop.agreed, await databaseTime(db));
      await makeMove(drop, 'revise', says, { sentWith, agreed, openAsked: false });
    }
    result.sent.push(channel.name);
    log.info({ drop: drop.id, video: videoId, channel: channel.id }, 'changes sent');
  }
  return result;
}
