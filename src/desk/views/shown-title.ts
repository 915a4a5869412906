import { wholeTitle } from '@/core/fitting';
import { TemplateError } from '@/core/words';
import type { Drop } from '@/store/drop/shape';
import type { Video } from '@/store/record/videos';
import type { Channel } from '@/store/site/channels';
import { type KeptLayers, wordsAt } from '../layers/layers';
import { site } from '../site/session';

/** The title as it goes out to the first channel whose site has titles; as it was typed where there is none. */
export function shownTitle(
  video: Video,
  drops: readonly Drop[],
  channels: ReadonlyMap<string, Channel>,
  layers: KeptLayers,
): string {
  for (const drop of drops) {
    const channel = channels.get(drop.channelId);
    if (!channel) continue;
    const { profile } = site(channel.site);
    if (!profile.title) continue;
    if (drop.own.title) return drop.own.title;
    try {
      return wholeTitle(wordsAt(layers, video, channel, drop), profile);
    } catch (error) {
      // What cannot be read in a pattern is said where it stands.
      if (!(error instanceof TemplateError)) throw error;
    }
  }
  return video.title;
}
