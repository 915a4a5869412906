import { valuesOf } from '@/core/defaults';
import { transaction } from '@/store/database';
import { dropById } from '@/store/drop/drops';
import type { Drop, OwnOnChannel } from '@/store/drop/shape';
import { videoById } from '@/store/record/videos';
import type { Channel } from '@/store/site/channels';
import { change } from '../changes/changes';
import { found } from '../desk-error';
import { changedMeanwhile } from '../drop/make-move';
import { inForceAt, keptLayers } from '../layers/layers';

/**
 * Says that a video that was closed is to be shown on its channel to those who saw it before, as soon as it is sent. Only where
 * that is not what the record says anyway is it set for the channel alone.
 * @throws DeskError where it is not closed any more
 */
export async function meanOpenAgain(drop: Drop, channel: Channel): Promise<void> {
  await transaction(async (trx) => {
    const video = found(await videoById(trx, drop.videoId, true), 'video');
    const now = found(await dropById(trx, drop.id, true), 'drop');
    const to = now.closedFrom;
    if (now.state !== 'live' || !to) throw changedMeanwhile();
    const layers = await keptLayers(trx);
    const { privacy: _privacy, release: _release, ...rest } = now.own;
    const beneath = valuesOf(inForceAt(layers, video, channel, { ...now, own: rest }));
    const own: OwnOnChannel = {
      ...rest,
      ...(beneath.privacy !== to && { privacy: to }),
      // It has opened before: it waits for nothing but its check.
      ...(beneath.release !== 'by itself' && { release: 'by itself' as const }),
    };
    await change(trx, drop.videoId, 'onChannel', { id: channel.id, own: now.own }, { id: channel.id, own });
  });
}
