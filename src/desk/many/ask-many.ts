import { type Database, database, transaction } from '@/store/database';
import { announce } from '@/store/feed';
import { askForJobs, askForJobsAnew } from '@/store/queue/jobs';
import {
  type ActCounts,
  addManyAct,
  countsOf,
  failuresOf,
  type ManyAct,
  manyActById,
  moveManyAct,
  newestManyActs,
  resultsOf,
} from '@/store/record/many-acts';
import { settings } from '@/store/settings';
import { DeskError, found } from '../desk-error';
import { takeWordsBack } from './do-many';
import { type Act, askedOfMany } from './many-act';

/** An act on many videos as pages show it. */
export interface ManyView {
  id: string;
  act: Act;
  videos: number;
  done: number;
  changed: number;
  /** The first of those that nothing came of, with why. */
  failed: { videoId: string; title: string; why: string }[];
  failedInAll: number;
  state: ManyAct['state'];
  /** Of those that were changed: on how many it was taken back, and on how many it stays. */
  undone: number;
  kept: number;
  /** Until when what opens by it can be stopped, ISO 8601 in UTC; undefined where nothing does. */
  opensUntil?: string;
  /** Whether it is worth showing still: it ended a few minutes ago at most. */
  endedLately: boolean;
  mayUndo: boolean;
  mayStop: boolean;
}

const SHOWN_FAILED = 20;
const SHOWN_ACTS = 5;
const LATELY_MILLISECONDS = 5 * 60_000;

const UNDOABLE: readonly Act['do'][] = ['set', 'tags', 'playlist', 'series'];

const mayUndo = ({ act, state }: ManyAct, changed: number): boolean =>
  (state === 'done' || state === 'stopped') && changed > 0 && UNDOABLE.includes((act as Act).do);

/** Until when the last video that was opened by an act waits for its word to take effect. */
function opensUntilOf({ act, state, endedAt }: ManyAct, changed: number): string | undefined {
  if ((act as Act).do !== 'open' || state !== 'done' || changed === 0 || !endedAt) return undefined;
  const until = new Date(endedAt.getTime() + settings().holdSeconds * 1000);
  return until > new Date() ? until.toISOString() : undefined;
}

async function manyView(db: Database, many: ManyAct, counts: ActCounts | undefined): Promise<ManyView> {
  const { id, act, videoIds, state, endedAt } = many;
  const { done, changed, failed, undone, kept } = counts ?? { done: 0, changed: 0, failed: 0, undone: 0, kept: 0 };
  const opensUntil = opensUntilOf(many, changed);
  const failures = failed > 0 ? await failuresOf(db, id, SHOWN_FAILED) : [];
  return {
    ...{ id, act: act as Act, state, done, changed, undone, kept, opensUntil },
    videos: videoIds.length,
    endedLately: endedAt !== undefined && Date.now() - endedAt.getTime() < LATELY_MILLISECONDS,
    failed: failures.map(({ videoId, title, why = '' }) => ({ videoId, title, why })),
    failedInAll: failed,
    mayUndo: mayUndo(many, changed),
    mayStop: state === 'waiting' || state === 'paused' || opensUntil !== undefined,
  };
}

/** Has something done with many videos, in the background; the id of it is returned. @throws ValidationError */
export async function askOfMany(input: unknown): Promise<{ id: string }> {
  const { ids, act } = await askedOfMany(input);
  const id = await transaction(async (trx) => {
    const made = await addManyAct(trx, act, ids);
    await askForJobs(trx, 'many', [made], { priority: 10 });
    await announce(trx, 'many', made);
    return made;
  });
  return { id };
}

/** What was done with many videos last, newest first. */
export async function lookAtManyActs(): Promise<ManyView[]> {
  const db = database();
  const acts = await newestManyActs(db, SHOWN_ACTS);
  const ids = acts.map(({ id }) => id);
  const counts = await countsOf(db, ids);
  return Promise.all(acts.map((act) => manyView(db, act, counts.get(act.id))));
}

/**
 * Has what an act has changed taken back in the background, on each video that was not changed since.
 * @throws DeskError where it cannot be undone
 */
export async function undoMany(id: string): Promise<void> {
  const db = database();
  const many = found(await manyActById(db, id), 'change of many videos');
  const { changed = 0 } = (await countsOf(db, [id])).get(id) ?? {};
  if (!mayUndo(many, changed)) throw new DeskError('not now', 'This cannot be undone.');
  await transaction(async (trx) => {
    if (!(await moveManyAct(trx, id, many.state, 'undoing'))) throw new DeskError('not now', 'This cannot be undone.');
    await askForJobsAnew(trx, 'many', [id]);
    await announce(trx, 'many', id);
  });
}

/** Lets an act rest: what it has in hand is ended, and no other begun. @throws DeskError where it is over, or rests */
export async function pauseMany(id: string): Promise<void> {
  found(await manyActById(database(), id), 'change of many videos');
  await transaction(async (trx) => {
    if (!(await moveManyAct(trx, id, 'waiting', 'paused'))) throw new DeskError('not now', 'This cannot be paused.');
    await announce(trx, 'many', id);
  });
}

/** Lets an act go on that rests, with what is not behind it. @throws DeskError where it does not rest */
export async function goOnMany(id: string): Promise<void> {
  found(await manyActById(database(), id), 'change of many videos');
  await transaction(async (trx) => {
    if (!(await moveManyAct(trx, id, 'paused', 'waiting'))) throw new DeskError('not now', 'This is not paused.');
    await askForJobsAnew(trx, 'many', [id]);
    await announce(trx, 'many', id);
  });
}

/**
 * Stops an act: what is not behind it is left as it is, and what it was to open and has not yet stays closed.
 * @returns on how many drops the word to open was taken back
 * @throws DeskError where it is over
 */
export async function stopMany(id: string): Promise<{ notOpened: number }> {
  const db = database();
  const many = found(await manyActById(db, id), 'change of many videos');
  const isOpen = (many.act as Act).do === 'open';
  const stopped = await transaction(async (trx) => {
    await announce(trx, 'many', id);
    return (await moveManyAct(trx, id, 'waiting', 'stopped')) || moveManyAct(trx, id, 'paused', 'stopped');
  });
  if (!stopped && !(isOpen && many.state === 'done')) throw new DeskError('not now', 'It is over already.');
  if (!isOpen) return { notOpened: 0 };
  // One that was in hand as it was stopped is among them.
  const notOpened = await takeWordsBack((await resultsOf(db, id)).map(({ videoId }) => videoId));
  await moveManyAct(db, id, 'done', 'stopped');
  return { notOpened };
}
