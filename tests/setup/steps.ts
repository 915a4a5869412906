import { afterEach, beforeEach } from 'vitest';
import { logTails } from './machine';
import { itsMachine } from './machines';

/**
 * For test files whose tests are steps of one path: after the first that fails the rest is skipped, and the tails of
 * the processes' logs are printed, so that a report ends with the cause and not with what follows from it.
 */
export function stepsInOrder(): void {
  let broken = false;
  beforeEach(({ skip }) => {
    if (broken) skip('a step before this one failed');
  });
  afterEach(({ task }) => {
    if (task.result?.state !== 'fail' || broken) return;
    broken = true;
    process.stderr.write(`${logTails(itsMachine().settings.KETTLE_HOME ?? '')}\n`);
  });
}
