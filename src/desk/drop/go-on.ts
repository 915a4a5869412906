import { agreedByTime } from '@/core/release';
import { databaseTime } from '@/store/clock';
import { database } from '@/store/database';
import { dropsWithSnag } from '@/store/drop/drops';
import type { DropFields } from '@/store/drop/rows';
import type { Drop } from '@/store/drop/shape';
import { allChannels, type Channel } from '@/store/site/channels';
import { site } from '../site/session';
import { makeMove } from './make-move';
import { meantWords } from './meant';
import { profileAt, recordOf } from './record';

/** Drops of an account that waited for its permission go on. What became due meanwhile is asked about before it opens. */
export async function goOnAfterPermission(accountId: string): Promise<void> {
  const db = database();
  const channels = (await allChannels(db)).filter((channel) => channel.accountId === accountId && channel.granted);
  const byId = new Map(channels.map((channel) => [channel.id, channel]));
  for (const drop of await dropsWithSnag(db, [...byId.keys()], 'permission')) {
    const channel = byId.get(drop.channelId);
    const fields = channel && (await asksAgain(drop, channel));
    await makeMove(drop, 'tryAgain', 'Goes on: the account is connected again', fields);
  }
}

/** Fields of a drop that stood before its opening: only a time that is still to come opens it without another word. */
async function asksAgain(drop: Drop, channel: Channel): Promise<DropFields> {
  if (drop.snag?.at !== 'held' && drop.snag?.at !== 'opening') return {};
  const db = database();
  const meant = meantWords(
    await recordOf(db, drop.videoId),
    channel,
    drop,
    profileAt(site(channel.site).profile, channel),
  );
  // A better file that takes the place of what is live opens nothing new.
  if (drop.former) return {};
  return { agreed: agreedByTime(meant, await databaseTime(db)), releasedFor: undefined, openAsked: false };
}
