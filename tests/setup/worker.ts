import type { ChildProcess } from 'node:child_process';
import path from 'node:path';
import { afterAll, beforeAll } from 'vitest';
import { closeDatabase } from '@/store/database';
import { endProcess, processEnvironment, startProcess } from '../../bin/setup/processes.mjs';

const root = path.resolve('.');

/** The worker of one test file. */
export interface TestWorker {
  isRunning(): boolean;
  start(): void;
  end(signal?: NodeJS.Signals): Promise<void>;
}

/**
 * A worker from a file's first test to its last; after it, this process lets go of the database. Called before the file's
 * own hooks, it is there in all of them.
 * @param more settings for it alone
 */
export function aWorker(more: Record<string, string> = {}): TestWorker {
  let child: ChildProcess;
  const worker: TestWorker = {
    isRunning: () => child.exitCode === null && child.signalCode === null,
    start() {
      child = startProcess(root, 'worker', { ...processEnvironment(root), ...more });
    },
    end: (signal) => endProcess(child, signal),
  };
  beforeAll(() => worker.start());
  afterAll(async () => {
    await worker.end();
    await closeDatabase();
  });
  return worker;
}
