import { setTimeout as pause } from 'node:timers/promises';
import { log } from '@/desk/log';

const IDLE_MILLISECONDS = 300;
const STUMBLED_MILLISECONDS = 2000;
const LAST_MILLISECONDS = 1000;

/** A class of lanes: work of one sort, so many pieces side by side, which waits behind no work of another sort. */
export interface LaneClass<Piece> {
  name: string;
  /** How many pieces one worker has in hand at a time. */
  atOnce: number;
  /** Takes pieces of work that are due, so many at the most. */
  take(most: number): Promise<Piece[]>;
  /** Lets the lanes hear that work may have become due, so that they look at once. */
  hear?(wake: () => void): void;
  /** Does one piece; what goes wrong with it is its own matter. */
  work(piece: Piece): Promise<void>;
}

/** Runs a class of lanes until the signal ends it: one asks for all, and as soon as one is free. */
export async function runLanes<Piece>(lanes: LaneClass<Piece>, ending: AbortSignal): Promise<void> {
  const inHand = new Set<Promise<void>>();
  let wake = () => {};
  const work = async (piece: Piece) => {
    try {
      await lanes.work(piece);
    } catch (error) {
      log.error({ lanes: lanes.name, error: (error as Error).message }, 'a lane stumbled');
    }
  };
  const begin = (piece: Piece) => {
    const working: Promise<void> = work(piece).then(() => {
      inHand.delete(working);
      // What has ended may make the next step due at once.
      wake();
    });
    inHand.add(working);
  };
  /** Until a lane is free, or the pause is over. Promises of long work are not raced: each race would stay in memory as long. */
  const rest = (milliseconds: number) =>
    new Promise<void>((resolve) => {
      const timer = setTimeout(resolve, milliseconds);
      wake = () => {
        clearTimeout(timer);
        resolve();
      };
      if (ending.aborted) wake();
    });
  ending.addEventListener('abort', () => wake());
  lanes.hear?.(() => wake());
  while (!ending.aborted) {
    try {
      const free = lanes.atOnce - inHand.size;
      const pieces = free > 0 ? await lanes.take(free) : [];
      for (const piece of pieces) begin(piece);
      if (pieces.length < free || free === 0) await rest(IDLE_MILLISECONDS);
    } catch (error) {
      if (ending.aborted) break;
      log.error({ lanes: lanes.name, error: (error as Error).message }, 'no work could be taken');
      await rest(STUMBLED_MILLISECONDS);
    }
  }
  // What can be ended writes down that it was; what cannot is taken up by another worker.
  await Promise.race([Promise.all(inHand), pause(LAST_MILLISECONDS)]);
}
