import { setTimeout as pause } from 'node:timers/promises';
import { log } from '@/desk/log';

const IDLE_MILLISECONDS = 300;
const STUMBLED_MILLISECONDS = 2000;

/** A class of lanes: work of one sort, so many pieces side by side, which waits behind no work of another sort. */
export interface LaneClass<Piece> {
  name: string;
  /** How many pieces one worker has in hand at a time. */
  atOnce: number;
  /** Takes pieces of work that are due, so many at the most. */
  take(most: number): Promise<Piece[]>;
  /** Does one piece; what goes wrong with it is its own matter. */
  work(piece: Piece): Promise<void>;
}

/** Runs a class of lanes until the signal ends it: one asks for all, and as soon as one is free. */
export async function runLanes<Piece>(lanes: LaneClass<Piece>, ending: AbortSignal): Promise<void> {
  const inHand = new Set<Promise<void>>();
  while (!ending.aborted) {
    try {
      const free = lanes.atOnce - inHand.size;
      const pieces = free > 0 ? await lanes.take(free) : [];
      for (const piece of pieces) {
        const working: Promise<void> = lanes
          .work(piece)
          .catch((error: Error) => log.error({ lanes: lanes.name, error: error.message }, 'a lane stumbled'))
          .finally(() => inHand.delete(working));
        inHand.add(working);
      }
      // What has ended may make the next step due at once, so nobody waits out the pause where a lane becomes free.
      if (pieces.length < free || free === 0) await quiet(inHand, ending);
    } catch (error) {
      if (ending.aborted) return;
      log.error({ lanes: lanes.name, error: (error as Error).message }, 'no work could be taken');
      await pause(STUMBLED_MILLISECONDS, undefined, { signal: ending }).catch(() => undefined);
    }
  }
}

async function quiet(inHand: ReadonlySet<Promise<void>>, ending: AbortSignal): Promise<void> {
  const rested = new AbortController();
  const signal = AbortSignal.any([ending, rested.signal]);
  await Promise.race([...inHand, pause(IDLE_MILLISECONDS, undefined, { signal }).catch(() => undefined)]);
  rested.abort();
}
