import { STOPS, stopsBehind } from '@/core/drop';
import { database } from '@/store/database';
import { dropsOf } from '@/store/drop/drops';
import type { Drop } from '@/store/drop/shape';
import { channelsById } from '@/store/site/channels';
import { meantWords } from '../drop/meant';
import { profileAt, type VideoRecord } from '../drop/record';
import { site } from '../site/session';

const CHECKED = STOPS.indexOf('proofed') + 1;

/** Whether a drop keeps those waiting that go out together with it: it is on its way, and not checked yet. */
function isOnItsWay({ state, snag }: Drop): boolean {
  if (state === 'removed' || state === 'removing' || snag?.at === 'removing') return false;
  return stopsBehind(state, snag) < CHECKED;
}

/**
 * The channels at which a video is not checked yet, of those that it opens on together with a drop. One that is ticked and not
 * sent counts: it is meant to go out with the others.
 * @returns their names
 */
export async function channelsNotChecked(record: VideoRecord, drop: Pick<Drop, 'id'>): Promise<string[]> {
  const db = database();
  const others = (await dropsOf(db, [record.video.id])).filter((each) => each.id !== drop.id && isOnItsWay(each));
  const channels = await channelsById(
    db,
    others.map(({ channelId }) => channelId),
  );
  return others.flatMap((other) => {
    const channel = channels.get(other.channelId);
    if (!channel) return [];
    const profile = profileAt(site(channel.site).profile, channel);
    // What its site opens by itself waits for nobody, and nobody for it.
    if (profile.opensItself) return [];
    return meantWords(record, channel, other, profile).waitsFor === 'together' ? [channel.name] : [];
  });
}
