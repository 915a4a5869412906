import { ValidationError } from 'yup';
import type { ListValue } from '@/core/defaults';
import { uniqueTags } from '@/core/words';
import { actAs } from '@/store/actor';
import { databaseTime } from '@/store/clock';
import { type Database, database, transaction } from '@/store/database';
import { dropsOf } from '@/store/drop/drops';
import { announce } from '@/store/feed';
import { changeMadeIn } from '@/store/record/changes';
import {
  beginResult,
  endResult,
  type ManyAct,
  manyActById,
  manyActsBefore,
  moveManyAct,
  type OneResult,
  resultsOf,
  setUndone,
} from '@/store/record/many-acts';
import { type Video, videoById } from '@/store/record/videos';
import { actOnDrop } from '../actions/act-on-drop';
import { undoMadeIn } from '../changes/changes';
import { ChangedMeanwhile, DeskError } from '../desk-error';
import { sendVideo } from '../drop/send';
import { askToDelete } from '../video/delete-video';
import { editVideo } from '../video/edit-video';
import { inWindow, windowOfAct } from '../window';
import type { Act } from './many-act';
import { tellEnded } from './tell-ended';

/** A list of a layer with some put to it; undefined where it has them all. */
function listWith(own: ListValue<string> | undefined, more: readonly string[]): ListValue<string> | undefined {
  const { way, items } = own ?? { way: 'add' as const, items: [] };
  const all = uniqueTags([...items, ...more]);
  return all.length === items.length ? undefined : { way, items: all };
}

/** Does with each drop of a video that is in a state what is asked; whether there was one is returned. */
async function withDrops(videoId: string, state: 'held' | 'snag', action: 'open' | 'try again'): Promise<boolean> {
  const drops = (await dropsOf(database(), [videoId])).filter((drop) => drop.state === state);
  const whys: string[] = [];
  let did = false;
  for (const { id } of drops) {
    try {
      await actOnDrop(id, { action });
      did = true;
    } catch (error) {
      if (!(error instanceof DeskError)) throw error;
      whys.push(error.message);
    }
  }
  if (!did && whys[0]) throw new DeskError('not now', whys[0]);
  return did;
}

/** Takes the word to open back from what is held of these videos; on how many drops is returned. */
export async function takeWordsBack(videoIds: readonly string[]): Promise<number> {
  const waiting = (await dropsOf(database(), videoIds)).filter(({ state, openAsked }) => state === 'held' && openAsked);
  let taken = 0;
  for (const { id } of waiting) {
    try {
      await actOnDrop(id, { action: 'not yet' });
      taken += 1;
    } catch (error) {
      // It has opened meanwhile.
      if (!(error instanceof DeskError)) throw error;
    }
  }
  return taken;
}

/** Sends a video to the channels that it has not gone to; what a person removed stays away. */
async function sendDrafts(videoId: string): Promise<boolean> {
  const drafts = (await dropsOf(database(), [videoId])).filter(({ state }) => state === 'draft');
  if (drafts.length === 0) return false;
  const { sent, notReady } = await sendVideo(
    videoId,
    drafts.map(({ channelId }) => channelId),
  );
  const [not] = notReady;
  if (not) throw new PartlyDone(sent.length > 0, `${not.channel}: ${not.missing.join('; ')}`);
  return sent.length > 0;
}

/** Something was done, and something could not be. */
class PartlyDone extends Error {
  constructor(
    readonly did: boolean,
    message: string,
  ) {
    super(message);
  }
}

/** Does an act with one video; whether anything came of it is returned. */
async function doWith(video: Video, act: Act): Promise<boolean> {
  switch (act.do) {
    case 'send':
      return sendDrafts(video.id);
    case 'open':
      return withDrops(video.id, 'held', 'open');
    case 'try again':
      return withDrops(video.id, 'snag', 'try again');
    case 'delete':
      await askToDelete(video.id);
      return true;
    case 'series':
      if ((video.seriesId ?? null) === act.seriesId) return false;
      await editVideo(video.id, { seriesId: act.seriesId });
      return true;
    case 'set':
      if (JSON.stringify(video.own[act.field]) === JSON.stringify(act.value)) return false;
      await editVideo(video.id, { [act.field]: act.value });
      return true;
    case 'tags':
      return putToList(video, 'tags', act.tags);
    case 'playlist':
      return putToList(video, 'playlists', [act.title]);
  }
}

/** As often as a list is looked at anew that somebody else has just put something to. */
const MOST_LOOKS = 20;

/** Puts something to a list of a video; what another window or another act puts there at the same moment stays, too. */
async function putToList(video: Video, field: 'tags' | 'playlists', more: readonly string[]): Promise<boolean> {
  let { own } = video;
  for (let looks = 1; ; looks += 1) {
    const list = listWith(own[field], more);
    if (!list) return false;
    try {
      await editVideo(video.id, { [field]: list, on: { [field]: own[field] ?? null } });
      return true;
    } catch (error) {
      if (!(error instanceof ChangedMeanwhile) || looks === MOST_LOOKS) throw error;
      own = (await videoById(database(), video.id))?.own ?? own;
    }
  }
}

type Result = Omit<OneResult, 'begun' | 'undone'>;

/** What comes of an act for one video. */
async function resultFor(actId: string, act: Act, videoId: string, video: Video | undefined): Promise<Result> {
  const db = database();
  const result: Result = { videoId, title: video?.title ?? '', changed: false, why: undefined };
  if (!video) return result;
  try {
    const did = await inWindow(windowOfAct(actId), () => doWith(video, act));
    // One that was changed just before a worker was killed is as it should be, and is this act's to undo.
    return { ...result, changed: did || (await changeMadeIn(db, videoId, windowOfAct(actId)))?.state === 'made' };
  } catch (error) {
    if (error instanceof PartlyDone) return { ...result, changed: error.did, why: error.message };
    if (error instanceof DeskError || error instanceof ValidationError) return { ...result, why: error.message };
    throw error;
  }
}

/** Acts that a person may have taken back since: they are not done a second time where nobody knows whether they were done. */
const ONCE: readonly Act['do'][] = ['open', 'delete', 'try again'];
const NOT_KNOWN = 'The worker ended in the middle of this one. Look whether it was done.';

/** Whether an act that was asked for before, and has not ended, is about one of these videos. */
async function waitsForOthers(db: Database, { id, videoIds }: ManyAct): Promise<boolean> {
  const own = new Set(videoIds);
  return (await manyActsBefore(db, id)).some((other) => other.videoIds.some((videoId) => own.has(videoId)));
}

/**
 * Does an act with each of its videos, one after the other, or takes it back. Of two that are about the same video, the later
 * waits; one that was paused and goes on waits for what another has in hand. What is behind it is not done again; one that was in hand when a worker was killed is done once more where that changes
 * nothing, and else is told of.
 * @param tell hears how many are behind it
 * @returns whether it is over; where not, it waits for another
 */
export async function doMany(id: string, tell: (done: number) => void, signal: AbortSignal): Promise<boolean> {
  const db = database();
  const many = await manyActById(db, id);
  if (!many) return true;
  return actAs(many.by, () => doEach(many, tell, signal));
}

async function doEach(many: ManyAct, tell: (done: number) => void, signal: AbortSignal): Promise<boolean> {
  const db = database();
  const { id } = many;
  if (many.state === 'undoing') return undoEach(many, tell, signal);
  if (many.state !== 'waiting') return true;
  if (await waitsForOthers(db, many)) return false;
  const act = many.act as Act;
  const results = new Map((await resultsOf(db, id)).map((result) => [result.videoId, result]));
  let behind = [...results.values()].filter(({ begun }) => !begun).length;
  for (const videoId of many.videoIds) {
    const before = results.get(videoId);
    if (before && !before.begun) continue;
    signal.throwIfAborted();
    if ((await manyActById(db, id))?.state !== 'waiting') return true;
    const video = await videoById(db, videoId);
    const title = video?.title ?? before?.title ?? '';
    if (before && ONCE.includes(act.do)) {
      await endResult(db, id, { videoId, title, changed: false, why: NOT_KNOWN });
    } else {
      if (!(await transaction((trx) => beginResult(trx, id, videoId, title)))) return false;
      await endResult(db, id, await resultFor(id, act, videoId, video));
      // Stopped while this one was in hand: it is not opened either.
      if (act.do === 'open' && (await manyActById(db, id))?.state === 'stopped') await takeWordsBack([videoId]);
    }
    behind += 1;
    tell(behind);
  }
  await transaction((trx) => endMany(trx, many));
  return true;
}

/** Takes back what an act has changed, on each video that was not changed since. */
async function undoEach({ id }: ManyAct, tell: (done: number) => void, signal: AbortSignal): Promise<boolean> {
  const db = database();
  const left = (await resultsOf(db, id)).filter(({ changed, undone }) => changed && undone === undefined);
  for (const [index, { videoId }] of left.entries()) {
    signal.throwIfAborted();
    await setUndone(db, id, videoId, await undoMadeIn(videoId, windowOfAct(id)));
    tell(index + 1);
  }
  await moveManyAct(db, id, 'undoing', 'undone');
  await announce(db, 'many', id);
  return true;
}

/** Ends an act that cannot go on: for the videos that are left, what went wrong is said. */
export async function giveUpMany(trx: Database, id: string, trouble: string): Promise<void> {
  const many = await manyActById(trx, id);
  if (!many) return;
  if (many.state === 'undoing') {
    await moveManyAct(trx, id, 'undoing', 'undone');
    return announce(trx, 'many', id);
  }
  const behind = new Set((await resultsOf(trx, id)).filter(({ begun }) => !begun).map(({ videoId }) => videoId));
  for (const videoId of many.videoIds) {
    if (behind.has(videoId)) continue;
    const title = (await videoById(trx, videoId))?.title ?? '';
    await endResult(trx, id, { videoId, title, changed: false, why: trouble });
  }
  await endMany(trx, many);
}

async function endMany(trx: Database, many: ManyAct): Promise<void> {
  if (await moveManyAct(trx, many.id, 'waiting', 'done')) await tellEnded(trx, many, await databaseTime(trx));
  await announce(trx, 'many', many.id);
}
