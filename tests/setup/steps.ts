import { afterEach, beforeEach } from 'vitest';
import { logTails } from './machine';

/**
 * For test files whose tests are steps of one path: after the first that fails the rest is skipped, and the tails of
 * the processes' logs are printed, so that a report ends with the cause and not with what follows from it.
 * @param home where the processes of this file keep their logs, once they run
 */
export function stepsInOrder(home: () => string | undefined): void {
  let broken = false;
  beforeEach(({ skip }) => {
    if (broken) skip('a step before this one failed');
  });
  afterEach(({ task }) => {
    if (task.result?.state !== 'fail' || broken) return;
    // The first try of two: the second says whether the path is broken.
    if (typeof task.retry === 'number' && (task.result.retryCount ?? 0) < task.retry) return;
    broken = true;
    const at = home();
    if (at) process.stderr.write(`${logTails(at)}\n`);
  });
}
