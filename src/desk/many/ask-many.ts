import { lastMade } from '@/store/changes';
import { database, transaction } from '@/store/database';
import { announce } from '@/store/feed';
import { askForJobs } from '@/store/jobs';
import {
  addManyAct,
  type ManyAct,
  manyActById,
  newestManyActs,
  type OneResult,
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

function manyView({ id, act: kept, videoIds, state, endedAt }: ManyAct, results: readonly OneResult[]): ManyView {
  const act = kept as Act;
  const failed = results.filter(({ why }) => why !== undefined);
  const changed = results.filter((result) => result.changed).length;
  return {
    ...{ id, act, state, changed },
    videos: videoIds.length,
    done: results.length,
    endedLately: endedAt !== undefined && Date.now() - endedAt.getTime() < LATELY_MILLISECONDS,
    failed: failed.slice(0, SHOWN_FAILED).map(({ videoId, title, why = '' }) => ({ videoId, title, why })),
    failedInAll: failed.length,
    mayUndo: state === 'done' && changed > 0 && UNDOABLE.includes(act.do),
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
  return Promise.all(acts.map(async (act) => manyView(act, await resultsOf(db, act.id))));
}

/**
 * Takes back what an act has changed, on each video that was not changed since. How many that were, and on how many it
 * stays, is returned.
 * @throws DeskError where it cannot be undone
 */
export async function undoMany(id: string): Promise<{ undone: number; kept: number }> {
  const db = database();
  const many = found(await manyActById(db, id), 'change of many videos');
  const results = await resultsOf(db, id);
  if (!manyView(many, results).mayUndo) throw new DeskError('not now', 'This cannot be undone.');
  let undone = 0;
  const changed = results.filter((result) => result.changed);
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
