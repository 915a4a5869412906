import { FIELD_NAMES, fieldsThatDiffer, type LayerAt } from '@/core/defaults';
import type { Database } from '@/store/database';
import { unsentDrops } from '@/store/drop/drops';
import { askForJobsAnew } from '@/store/queue/jobs';
import { videosForLayers } from '@/store/record/videos';
import { allChannels } from '@/store/site/channels';
import { keptLayers, layersAt } from '../layers/layers';
import { turns } from '../turns';

/** A video that a change of defaults reaches where it has not been sent, with the fields that change there. */
export interface Reached {
  videoId: string;
  title: string;
  fields: string[];
}

/** The layers of a video, by the channels at which it has not been sent; '' stands for the record alone. */
interface UnsentVideo {
  title: string;
  layers: Map<string, LayerAt[]>;
}

/**
 * Makes a change of layers, and tells which videos it reaches. What was sent keeps what it was sent with; videos that are
 * at all their channels are not reached.
 */
export async function reachOf(db: Database, change: () => Promise<void>): Promise<Reached[]> {
  const before = await unsentVideos(db);
  await change();
  const after = await unsentVideos(db);
  const turn = turns();
  const reached: Reached[] = [];
  for (const [videoId, { title, layers }] of after) {
    await turn();
    const was = before.get(videoId)?.layers;
    const differ = [...layers].flatMap(([place, now]) => {
      const then = was?.get(place);
      return then ? fieldsThatDiffer(then, now) : [];
    });
    const fields = [...new Set(differ)].map((field) => FIELD_NAMES[field]);
    if (fields.length > 0) reached.push({ videoId, title, fields });
  }
  await askForJobsAnew(
    db,
    'picture',
    reached.filter(({ fields }) => fields.includes(FIELD_NAMES.picture)).map(({ videoId }) => videoId),
  );
  return reached;
}

async function unsentVideos(db: Database): Promise<Map<string, UnsentVideo>> {
  const [kept, videos, channels] = await Promise.all([keptLayers(db), videosForLayers(db, 'unsent'), allChannels(db)]);
  const channelById = new Map(channels.map((channel) => [channel.id, channel]));
  const all = new Map<string, UnsentVideo>();
  const videoById = new Map(videos.map((video) => [video.id, video]));
  for (const { id, title, own, seriesId, drops: count } of videos) {
    const layers = count > 0 ? [] : [['', layersAt(kept, { own, seriesId })] as const];
    all.set(id, { title, layers: new Map(layers) });
  }
  const turn = turns();
  for await (const drops of unsentDrops(db)) {
    for (const drop of drops) {
      await turn();
      const [channel, video] = [channelById.get(drop.channelId), videoById.get(drop.videoId)];
      if (!channel || !video) continue;
      const unsent = { ...drop, state: 'draft' as const, sentWith: undefined };
      all.get(video.id)?.layers.set(channel.id, layersAt(kept, video, channel, unsent));
    }
  }
  return all;
}
