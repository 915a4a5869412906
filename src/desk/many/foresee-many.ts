import { withValues } from '@/core/defaults';
import { isOpenTo, isSent, isWider } from '@/core/drop';
import { database } from '@/store/database';
import { dropsOf } from '@/store/drop/drops';
import type { Drop } from '@/store/drop/shape';
import { measurementsOf } from '@/store/record/measurements';
import { allChannels, type Channel } from '@/store/site/channels';
import { actionsFor } from '../actions/act-on-drop';
import { warnsOfFile } from '../drop/file-findings';
import { missingAt } from '../drop/readiness';
import { profileAt, recordsOf, type VideoRecord } from '../drop/record';
import { inForceAt } from '../layers/layers';
import { site } from '../site/session';
import { turns } from '../turns';
import { type Act, askedOfMany } from './many-act';

/** What an act on many videos will come to. */
export interface Foreseen {
  /** How many videos were selected. */
  videos: number;
  /** With how many of them something will be done. */
  concerned: number;
  /** In how many places at sites: drops that are sent, opened, tried again or removed there. */
  places: number;
  /** How many of those that are sent open to everyone by themselves. */
  opening: number;
  /** How many that are open are closed at once to those who are not to see them any more. */
  closing: number;
  /** In how many of those that are sent something in the file is to be looked at. */
  warned: number;
  /** Why it cannot be done in some places, and in how many, the commonest first. */
  cannot: { why: string; places: number }[];
}

const RECORDS_AT_ONCE = 50;
const REASONS = 5;

/** Says what an act on many videos will come to, before it is done. @throws ValidationError */
export async function foreseeMany(input: unknown): Promise<Foreseen> {
  const { ids, act } = await askedOfMany(input);
  const whys = new Map<string, number>();
  const concerned = new Set<string>();
  const warned = new Set<string>();
  const seen: Foreseen = { videos: ids.length, concerned: 0, places: 0, opening: 0, closing: 0, warned: 0, cannot: [] };
  const db = database();
  const channels = new Map((await allChannels(db)).map((channel) => [channel.id, channel]));
  const turn = turns();
  for (let at = 0; at < ids.length; at += RECORDS_AT_ONCE) {
    await turn();
    const part = ids.slice(at, at + RECORDS_AT_ONCE);
    const found = await placesOf(part, act, channels);
    for (const { videoId, why, opens, closes, warns } of found) {
      if (why) {
        whys.set(why, (whys.get(why) ?? 0) + 1);
        continue;
      }
      concerned.add(videoId);
      seen.places += 1;
      if (opens) seen.opening += 1;
      if (closes) seen.closing += 1;
      if (warns) warned.add(videoId);
    }
    if (!TO_PLACES.includes(act.do)) for (const id of part) concerned.add(id);
  }
  const sorted = [...whys].sort(([, a], [, b]) => b - a).slice(0, REASONS);
  return {
    ...seen,
    concerned: concerned.size,
    warned: warned.size,
    cannot: sorted.map(([why, places]) => ({ why, places })),
  };
}

/** Acts on places at sites; all others are on the videos themselves. */
const TO_PLACES: readonly Act['do'][] = ['send', 'open', 'try again'];

interface Place {
  videoId: string;
  why?: string;
  opens?: boolean;
  closes?: boolean;
  warns?: boolean;
}

async function placesOf(ids: readonly string[], act: Act, channels: ReadonlyMap<string, Channel>): Promise<Place[]> {
  const db = database();
  const drops = await dropsOf(db, ids);
  if (act.do === 'delete') {
    return drops.filter(({ state }) => isSent(state)).map(({ videoId }): Place => ({ videoId }));
  }
  if (act.do === 'send') return placesToSend(drops, channels);
  if (act.do === 'set' || act.do === 'series') return placesToClose(drops, act, channels);
  if (act.do !== 'open' && act.do !== 'try again') return [];
  const action = act.do;
  const state = action === 'open' ? 'held' : 'snag';
  const records = await recordsOf(db, ids);
  return drops
    .filter((drop) => drop.state === state)
    .flatMap((drop): Place[] => {
      const [record, channel] = [records.get(drop.videoId), channels.get(drop.channelId)];
      if (!record || !channel) return [];
      const end = inForceAt(record.layers, record.video, channel, drop).privacy.value;
      const may = actionsFor(drop, profileAt(site(channel.site).profile, channel), end).includes(action);
      return may ? [{ videoId: drop.videoId }] : [{ videoId: drop.videoId, why: 'it needs something else first' }];
    });
}

/** Drops that are open at their site to people who are not to see them once something is set: that is done at once. */
async function placesToClose(
  drops: readonly Drop[],
  act: Extract<Act, { do: 'set' | 'series' }>,
  channels: ReadonlyMap<string, Channel>,
): Promise<Place[]> {
  const open = drops.filter(({ state, openedTo }) => isOpenTo(openedTo) && isSent(state));
  const records = await recordsOf(database(), [...new Set(open.map(({ videoId }) => videoId))]);
  return open.flatMap((drop): Place[] => {
    const [record, channel] = [records.get(drop.videoId), channels.get(drop.channelId)];
    if (!record || !channel) return [];
    const { video, layers } = record;
    const set =
      act.do === 'set'
        ? { ...video, own: withValues(video.own, { [act.field]: act.value }) }
        : { ...video, seriesId: act.seriesId ?? undefined };
    const { value: end } = inForceAt(layers, set, channel, drop).privacy;
    return isWider(drop.openedTo ?? 'private', end) ? [{ videoId: drop.videoId, closes: true }] : [];
  });
}

/** Whether a drop opens to everyone as soon as it is checked. */
function opensByItself(
  layers: VideoRecord['layers'],
  video: VideoRecord['video'],
  channel: Channel,
  drop: Drop,
): boolean {
  const { privacy, release } = inForceAt(layers, video, channel, drop);
  return isWider(privacy.value, 'link') && release.value === 'by itself';
}

async function placesToSend(drops: readonly Drop[], channels: ReadonlyMap<string, Channel>): Promise<Place[]> {
  const drafts = drops.filter(({ state }) => state === 'draft');
  const records = await recordsOf(database(), [...new Set(drafts.map(({ videoId }) => videoId))]);
  const cuts = [...records.values()].flatMap(({ cut }) => cut?.id ?? []);
  const measures = await measurementsOf(database(), cuts);
  const warned = new Map(
    [...records].map(([id, record]) => [id, warnsOfFile(record, measures.get(record.cut?.id ?? ''))]),
  );
  return drafts.flatMap((drop): Place[] => {
    const [record, channel] = [records.get(drop.videoId), channels.get(drop.channelId)];
    if (!record || !channel) return [];
    const { videoId } = drop;
    if (channel.accountState !== 'connected' || !channel.granted)
      return [{ videoId, why: 'the channel is not connected' }];
    const [missing] = missingAt(record, channel, drop, profileAt(site(channel.site).profile, channel));
    if (missing) return [{ videoId, why: missing.what }];
    const opens = opensByItself(record.layers, record.video, channel, drop);
    return [{ videoId, opens, warns: warned.get(videoId) }];
  });
}
