import { valuesOf } from '@/core/defaults';
import { isOpenTo } from '@/core/drop';
import { instantOf, isTimed, isTooNear } from '@/core/release';
import { database } from '@/store/database';
import { dropsOf } from '@/store/drop/drops';
import { videoById } from '@/store/record/videos';
import { channelsById } from '@/store/site/channels';
import { found } from '../desk-error';
import { inForceAt, keptLayers } from '../layers/layers';
import { openingsBetween } from '../views/look-at-calendar';

const HOUR = 3_600_000;

/** Another video that opens on the same channel too near. */
export interface Clash {
  channel: string;
  /** Hours that are to lie between two releases there. */
  hoursApart: number;
  videoId: string;
  title: string;
  /** When it opens or has opened, in UTC. */
  at: string;
}

/** What opens too near to a video that has a set time, on the channels that are to be left in peace for so long. */
export async function clashesOf(videoId: string): Promise<{ clashes: Clash[] }> {
  const db = database();
  const video = found(await videoById(db, videoId), 'video');
  const [drops, layers] = await Promise.all([dropsOf(db, [videoId]), keptLayers(db)]);
  const channels = await channelsById(
    db,
    drops.map(({ channelId }) => channelId),
  );
  const clashes: Clash[] = [];
  for (const drop of drops) {
    const channel = channels.get(drop.channelId);
    if (!channel || isOpenTo(drop.openedTo)) continue;
    const { release, opensAt } = valuesOf(inForceAt(layers, video, channel, drop));
    // How long a channel is left in peace is a rule of today, also for what was sent before.
    const { hoursApart } = valuesOf(inForceAt(layers, video, channel, { ...drop, sentWith: undefined }));
    if (hoursApart === 0 || !opensAt || !isTimed(release)) continue;
    const [moment, apart] = [instantOf(opensAt), hoursApart * HOUR];
    const own = { videoId, channel, at: moment.toISOString(), hoursApart };
    const { entries } = await openingsBetween(new Date(moment.getTime() - apart), new Date(moment.getTime() + apart));
    for (const entry of entries) {
      if (!isTooNear(own, entry)) continue;
      clashes.push({ channel: channel.name, hoursApart, videoId: entry.videoId, title: entry.title, at: entry.at });
    }
  }
  return { clashes };
}
