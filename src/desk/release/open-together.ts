import { database, transaction } from '@/store/database';
import { dropsOf, setDrop } from '@/store/drop/drops';
import { lookAtHeldAgain } from '@/store/drop/held';
import { announce } from '@/store/feed';
import { channelsById } from '@/store/site/channels';
import { actOnDrop } from '../actions/act-on-drop';
import { meantWords } from '../drop/meant';
import { profileAt, recordOf } from '../drop/record';
import { site } from '../site/session';
import { editOnChannel, editVideo } from '../video/edit-video';
import { channelsNotChecked } from './not-checked';

/**
 * Says of a video that it opens on its channels together, as soon as it is checked on all of them. Where it is so already, that
 * is a word to open it, with its seconds to stop it.
 * @param channelIds of these alone; of all where none is given
 */
export async function openTogether(videoId: string, channelIds: readonly string[] = []): Promise<void> {
  const set = { release: 'together', opensAt: null };
  if (channelIds.length === 0) await editVideo(videoId, set);
  for (const channelId of channelIds) await editOnChannel(videoId, { channelId, set });
  const db = database();
  const record = await recordOf(db, videoId);
  const drops = (await dropsOf(db, [videoId])).filter(
    ({ channelId, state }) => state !== 'draft' && (channelIds.length === 0 || channelIds.includes(channelId)),
  );
  const channels = await channelsById(
    db,
    drops.map(({ channelId }) => channelId),
  );
  for (const drop of drops) {
    const channel = channels.get(drop.channelId);
    if (!channel || drop.openAsked || drop.state === 'live') continue;
    const meant = meantWords(record, channel, drop, profileAt(site(channel.site).profile, channel));
    if (meant.waitsFor !== 'together' || meant.opensAt) continue;
    if (drop.state === 'held' && (await channelsNotChecked(record, drop)).length === 0) {
      await actOnDrop(drop.id, { action: 'open' });
      continue;
    }
    await transaction(async (trx) => {
      await setDrop(trx, drop.id, { agreed: { to: meant.agreement, by: 'sending' } });
      await lookAtHeldAgain(trx, videoId);
      await announce(trx, 'video', videoId);
    });
  }
}
