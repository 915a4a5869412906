import os from 'node:os';

/** One encoder keeps about four cores busy; more of them side by side only take longer, each. */
const CORES_OF_ONE = 4;

/** How many encoders run side by side on this machine. */
export const ENCODERS_AT_ONCE = Math.max(1, Math.floor(os.availableParallelism() / CORES_OF_ONE));

const waiting: (() => void)[] = [];
let running = 0;
let inHand = 0;
let onHold = 0;

/** How many more encoders could begin now: what a worker takes beyond that, another worker could do. */
export const freeTurns = (): number => Math.max(0, ENCODERS_AT_ONCE - inHand + onHold);

/** Counts a file from when it was claimed, long before it has its turn. */
export async function countInHand(work: () => Promise<void>): Promise<void> {
  inHand += 1;
  await work().finally(() => {
    inHand -= 1;
  });
}

/** Counts a file as one on hold, which lets another begin, or no more as one. */
export function countOnHold(isOnHold: boolean): void {
  onHold += isOnHold ? 1 : -1;
}

/** Waits for a turn. @throws the signal's reason where it aborts meanwhile */
export async function takeTurn(signal: AbortSignal): Promise<void> {
  signal.throwIfAborted();
  if (running < ENCODERS_AT_ONCE) {
    running += 1;
    return;
  }
  await new Promise<void>((resolve, reject) => {
    const leave = () => {
      waiting.splice(waiting.indexOf(turn), 1);
      reject(signal.reason as Error);
    };
    const turn = () => {
      signal.removeEventListener('abort', leave);
      resolve();
    };
    waiting.push(turn);
    signal.addEventListener('abort', leave, { once: true });
  });
}

/** Gives a turn back: to the one that has waited longest, where one waits. */
export function giveTurnBack(): void {
  const next = waiting.shift();
  if (next) next();
  else running -= 1;
}
