import type { Drop } from '@/store/drop/shape';
import type { Channel } from '@/store/site/channels';
import type { TickedChannel } from '../layers/record-values';
import { site } from '../site/session';
import { profileAt } from './record';

/** The channels that a video is ticked for, or was sent to, each with its drop and what it takes, in the order of the channels. */
export function tickedChannels(channels: readonly Channel[], drops: readonly Drop[]): TickedChannel[] {
  const dropAt = new Map(drops.map((drop) => [drop.channelId, drop]));
  return channels.flatMap((channel): TickedChannel[] => {
    const drop = dropAt.get(channel.id);
    return drop ? [{ channel, drop, profile: profileAt(site(channel.site).profile, channel) }] : [];
  });
}
