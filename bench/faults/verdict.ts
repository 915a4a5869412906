import { instantOf, type Moment } from '@/core/release';
import { sessionFor, site } from '@/desk/site/session';
import { database } from '@/store/database';
import { allChannels } from '@/store/site/channels';
import { videosAt } from '../../tests/setup/desk';

/** What became of everything, after the day: all of these are to be 0. */
export interface Verdict {
  /** Files that did not come in whole, and drops that are gone. */
  lost: number;
  /** Videos that stand twice at a site. */
  doubled: number;
  /** Drops that are not live. */
  stuck: number;
  /** Videos at a site that belong to no drop. */
  leftBehind: number;
  /** Drops that are live and show something else than was meant, or to others. */
  wrong: number;
  /** Drops that were open before their time. */
  early: number;
}

/** What was meant of every file. */
export interface Meant {
  files: number;
  drops: number;
  /** SHA-256. */
  digest: string;
  words: { summary: string; tags: readonly string[] };
}

interface DropRow {
  id: string;
  state: string;
  siteVideoId: string | null;
  channelId: string;
  title: string;
  /** What is set for this channel alone, as JSON. */
  own: string | null;
}

/** From when on a drop may be open, in milliseconds: at any time where none is set for it. */
function mayOpenFrom({ own }: DropRow): number {
  const { opensAt } = JSON.parse(own ?? '{}') as { opensAt?: Moment };
  return opensAt ? instantOf(opensAt).getTime() : Number.NEGATIVE_INFINITY;
}

/** Compares what there is with what was meant, at Kettle Drop and at each site. */
export async function verdictOn(meant: Meant): Promise<Verdict> {
  const db = database();
  const cuts: { state: string; digest: string | null }[] = await db('cuts').select('state', 'digest');
  const whole = cuts.filter(({ state, digest }) => state === 'ready' && digest === meant.digest).length;
  const drops: DropRow[] = await db('drops')
    .join('videos', 'videos.id', 'drops.videoId')
    .whereNot('drops.state', 'draft')
    .select('drops.id', 'drops.state', 'drops.siteVideoId', 'drops.channelId', 'drops.own', 'videos.title')
    .select('drops.waiting', 'drops.snag', 'drops.attempts', 'drops.leaseOwner', 'drops.nextTryAt');
  const channels = new Map((await allChannels(db)).map((channel) => [channel.id, channel]));
  const siteOf = (drop: DropRow) => channels.get(drop.channelId)?.site ?? '';
  let [doubled, leftBehind, wrong, early] = [0, 0, 0, 0];
  for (const siteId of new Set(drops.map(siteOf))) {
    const videos = await videosAt(siteId);
    const ours = new Set(drops.filter((drop) => siteOf(drop) === siteId).map(({ siteVideoId }) => siteVideoId));
    leftBehind += videos.filter(({ id }) => !ours.has(String(id))).length;
    const names = videos.map(({ channelId, fileName }) => `${channelId} ${fileName}`);
    doubled += names.length - new Set(names).size;
    const openedAt = new Map(videos.map(({ id, publishedAt }) => [id, Date.parse(String(publishedAt))]));
    early += drops.filter((drop) => (openedAt.get(drop.siteVideoId) ?? Number.NaN) < mayOpenFrom(drop)).length;
  }
  // What is wrong is told whole, so that it can be found out why.
  for (const drop of drops.filter(({ state }) => state !== 'live')) console.error('stuck', JSON.stringify(drop));
  for (const drop of drops.filter(({ state }) => state === 'live')) {
    const channel = channels.get(drop.channelId);
    if (!channel) continue;
    const { look, profile } = site(channel.site);
    const { shown } = await look(sessionFor(channel.accountId), drop.siteVideoId ?? '');
    const title = shown.title === undefined || shown.title === drop.title;
    const file = shown.file === undefined || shown.file === meant.digest;
    const text = shown.text === undefined || shown.text.includes(meant.words.summary);
    const tags = typeof profile.tags !== 'object' || meant.words.tags.every((tag) => shown.tags?.includes(tag));
    if (title && text && tags && file && shown.privacy === 'everyone') continue;
    console.error('wrong', JSON.stringify({ drop, shown }));
    wrong += 1;
  }
  return {
    lost: meant.files - whole + Math.max(0, meant.drops - drops.length),
    stuck: drops.filter(({ state }) => state !== 'live').length,
    doubled,
    leftBehind,
    wrong,
    early,
  };
}
