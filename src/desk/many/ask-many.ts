import { lastMade } from '@/store/changes';
import { type Database, database, transaction } from '@/store/database';
import { announce } from '@/store/feed';
import { askForJobs } from '@/store/jobs';
import {
  type ActCounts,
  addManyAct,
  countsOf,
  failuresOf,
  type ManyAct,
  manyActById,
  newestManyActs,
  resultsOf,
  setManyActState,
} from '@/store/many-acts';
import { undo } from '../changes/changes';
import { DeskError, found } from '../desk-error';
import { madeInAct } from './do-many';
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
  /** Whether it is worth showing still: it ended a few minutes ago at most. */
  endedLately: boolean;
  mayUndo: boolean;
}

const SHOWN_FAILED = 20;
const SHOWN_ACTS = 5;
const LATELY_MILLISECONDS = 5 * 60_000;

const UNDOABLE: readonly Act['do'][] = ['set', 'tags', 'playlist', 'series'];

const mayUndo = ({ act, state }: ManyAct, changed: number): boolean =>
  state === 'done' && changed > 0 && UNDOABLE.includes((act as Act).do);

async function manyView(db: Database, many: ManyAct, counts: ActCounts | undefined): Promise<ManyView> {
  const { id, act, videoIds, state, endedAt } = many;
  const { done, changed, failed } = counts ?? { done: 0, changed: 0, failed: 0 };
  const failures = failed > 0 ? await failuresOf(db, id, SHOWN_FAILED) : [];
  return {
    ...{ id, act: act as Act, state, done, changed },
    videos: videoIds.length,
    endedLately: endedAt !== undefined && Date.now() - endedAt.getTime() < LATELY_MILLISECONDS,
    failed: failures.map(({ videoId, title, why = '' }) => ({ videoId, title, why })),
    failedInAll: failed,
    mayUndo: mayUndo(many, changed),
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
 * Takes back what an act has changed, on each video that was not changed since. How many that were, and on how many it
 * stays, is returned.
 * @throws DeskError where it cannot be undone
 */
export async function undoMany(id: string): Promise<{ undone: number; kept: number }> {
  const db = database();
  const many = found(await manyActById(db, id), 'change of many videos');
  const changed = (await resultsOf(db, id)).filter((result) => result.changed);
  if (!mayUndo(many, changed.length)) throw new DeskError('not now', 'This cannot be undone.');
  let undone = 0;
  for (const { videoId } of changed) {
    const last = await lastMade(db, videoId);
    if (last?.madeIn !== madeInAct(id)) continue;
    await undo(videoId);
    undone += 1;
  }
  await setManyActState(db, id, 'undone');
  await announce(db, 'many', id);
  return { undone, kept: changed.length - undone };
}
