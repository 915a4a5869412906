import { readCaptions } from '@/core/captions';
import { inForce } from '@/core/defaults';
import { suggestTags, type TagOffer, tagKey, tagVariants } from '@/core/words';
import { database } from '@/store/database';
import { dropsOf } from '@/store/drop/drops';
import { captionsOf, captionText } from '@/store/record/captions';
import { earlierVideos } from '@/store/record/videos';
import { allChannels } from '@/store/site/channels';
import { recordOf } from '../drop/record';
import { layersAt } from '../layers/layers';

/** Tags that a video could have, and variants of those that it has. */
export interface TagOffers {
  suggestions: TagOffer[];
  /** By the tag that they are variants of. */
  variants: Record<string, TagOffer[]>;
}

/** What could be added to a video's tags, from earlier videos of its channels, its captions and its own words. */
export async function tagOffers(videoId: string): Promise<TagOffers> {
  const db = database();
  const record = await recordOf(db, videoId);
  const { video, layers } = record;
  const [drops, channels, tracks] = await Promise.all([
    dropsOf(db, [videoId]),
    allChannels(db),
    captionsOf(db, videoId),
  ]);
  const texts = await Promise.all(tracks.map(({ id }) => captionWords(id)));
  const earlier = await earlierVideos(db, videoId, [...new Set(drops.map(({ channelId }) => channelId))]);
  const at = (seriesId: string | undefined, own: typeof video.own, channelId: string) =>
    inForce(
      layersAt(
        layers,
        { own, seriesId },
        channels.find(({ id }) => id === channelId),
      ),
    ).tags.value;
  const tags = [...new Set(drops.flatMap((drop) => at(video.seriesId, video.own, drop.channelId)))];
  const { title, summary } = video;
  const captions = texts.join('\n');
  const names = [...channels, ...layers.series.values()].map(({ name }) => tagKey(name));
  const isName = (tag: string) => names.includes(tagKey(tag));
  return {
    suggestions: suggestTags({
      title,
      summary,
      captions,
      tags,
      earlier: earlier.map((each) => ({ title: each.title, tags: at(each.seriesId, each.own, each.channelId) })),
    }),
    variants: Object.fromEntries(
      tags.flatMap((tag) => {
        const offers = tagVariants(tag, [title, summary, ...tags.filter((other) => other !== tag)]);
        // Nobody searches for a name in the plural.
        const fresh = offers.filter(
          ({ tag: offer, why }) => !tags.includes(offer) && !(why === 'plural' && isName(tag)),
        );
        return fresh.length > 0 ? [[tag, fresh]] : [];
      }),
    ),
  };
}

/** What captions say, a line for each. */
async function captionWords(id: string): Promise<string> {
  const webvtt = await captionText(database(), id);
  if (!webvtt) return '';
  const { captions } = readCaptions(new TextEncoder().encode(webvtt));
  // A sentence goes on from one line to the next.
  return captions.map(({ lines }) => lines.join(' ')).join(' ');
}
