import { database } from '@/store/database';
import { newId } from '@/store/ids';

/** What drops of a made-up desk stand at, most of them live, as on a desk that has been in use for years. */
const STATES = ['live', 'live', 'live', 'live', 'live', 'live', 'draft', 'held', 'landing', 'snag'] as const;

/**
 * Puts many videos on the desk at once, each with a file that is read and a drop on every channel.
 * @param from the number of the first, which stands in its title
 * @param states what the drops of the nth video stand at, over and over
 */
export async function manyVideos(
  count: number,
  channelIds: readonly string[],
  { from = 0, states = STATES as readonly string[], seriesId = null as string | null } = {},
): Promise<string[]> {
  const at = new Date();
  const facts = JSON.stringify({
    container: 'mp4',
    duration: { num: 48, den: 1 },
    video: { codec: 'h264', width: 1280, height: 720, rate: { num: 25, den: 1 } },
    audio: undefined,
  });
  const videos = Array.from({ length: count }, (_, n) => ({
    id: newId(),
    title: `Plank ${from + n} of the long boat`,
    titleFrom: 'person',
    summary: '',
    seriesId,
    episode: '',
    own: JSON.stringify({ privacy: 'everyone', release: 'on my word' }),
    createdAt: at,
    updatedAt: at,
  }));
  const cuts = videos.map(({ id }, n) => ({
    id: newId(),
    videoId: id,
    ordinal: 1,
    fileName: `plank_${from + n}.mp4`,
    fileKey: `cuts/none-${id}`,
    size: 1000,
    received: 1000,
    state: 'ready',
    facts,
    createdAt: at,
  }));
  const drops = videos.flatMap(({ id }, n) =>
    channelIds.map((channelId) => {
      const state = states[n % states.length] ?? 'draft';
      const snag = { kind: 'refused', what: 'The title is too long', remedy: 'Shorten it', at: 'landing' };
      return {
        id: newId(),
        videoId: id,
        channelId,
        state,
        snag: state === 'snag' ? JSON.stringify(snag) : null,
        link: state === 'live' ? `http://site.example/watch/${id}` : null,
        createdAt: at,
        updatedAt: at,
        stateSince: at,
        // Not for a worker: what these stand at is made up.
        nextTryAt: new Date(Date.now() + 365 * 24 * 3_600_000),
      };
    }),
  );
  const db = database();
  await db.batchInsert('videos', videos, 500);
  await db.batchInsert('cuts', cuts, 500);
  await db.batchInsert('drops', drops, 500);
  return videos.map(({ id }) => id);
}
