import { goesUpClosed } from '@/core/delivery';
import type { Database } from '@/store/database';
import { dropById, dropsOf, setDrop } from '@/store/drop/drops';
import { earlyUploadsOf, giveUpEarlyUploads, makeEarlyUpload } from '@/store/drop/early-uploads';
import { type Drop, linksLeft, transferKey } from '@/store/drop/shape';
import { allChannels } from '@/store/site/channels';
import { inForceAt } from '../layers/layers';
import { isOpenToUs, site } from '../site/session';
import { profileAt, recordOf } from './record';
import { tickedChannels } from './ticked';

/**
 * Has the file of a video go up to the channels whose habit that is, closed, before it is sent. One that went up of another
 * file than the one in use is given up.
 */
export async function startEarly(trx: Database, videoId: string): Promise<void> {
  const drops: Drop[] = [];
  for (const { id } of await dropsOf(trx, [videoId])) {
    // Each is held until the end, so that none is sent meanwhile.
    const drop = await dropById(trx, id, true);
    if (drop?.state === 'draft') drops.push(drop);
  }
  if (drops.length === 0) return;
  const record = await recordOf(trx, videoId);
  const { cut, layers, video } = record;
  if (cut?.state !== 'ready' || cut.goneAt) return;
  const ids = drops.map(({ id }) => id);
  const [channels, uploads] = await Promise.all([allChannels(trx), earlyUploadsOf(trx, ids)]);
  for (const { channel, drop } of tickedChannels(channels, drops)) {
    const upload = uploads.get(drop.id);
    if (upload?.cutId === cut.id) continue;
    let { round } = drop;
    if (upload) {
      await giveUpEarlyUploads(trx, { dropId: drop.id });
      round += 1;
      const formerLinks = linksLeft({ ...drop, link: upload.link });
      await setDrop(trx, drop.id, { round, formerLinks });
    }
    const profile = profileAt(site(channel.site).profile, channel);
    const habit = inForceAt(layers, video, channel, drop).uploadEarly.value;
    if (!habit || !isOpenToUs(channel) || !goesUpClosed(profile)) continue;
    const about = { videoId, channelId: channel.id, cutId: cut.id, dropId: drop.id };
    await makeEarlyUpload(trx, { ...about, transferKey: transferKey({ id: drop.id, round }) });
  }
}
