import { setImmediate as nextTurn } from 'node:timers/promises';

/** Work goes on for no longer at a time, so that a page that asks meanwhile is answered. */
const MOST_MILLISECONDS = 10;

/** For long work in a loop: a function to await in each round, that lets others have their turn when it is time. */
export function turns(): () => Promise<void> {
  let since = performance.now();
  return async () => {
    if (performance.now() - since < MOST_MILLISECONDS) return;
    await nextTurn();
    since = performance.now();
  };
}
