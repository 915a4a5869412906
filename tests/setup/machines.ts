import { inject } from 'vitest';
import type { ProcessName } from './machine';

declare module 'vitest' {
  export interface ProvidedContext {
    /** What each process of tests has to itself, in their order: it takes that of its number. */
    machines: SharedMachine[];
  }
}

/** A machine that all files of one process of tests use, one after the other. */
export interface SharedMachine {
  settings: Record<string, string>;
  /** Where its processes are ended and started, for tests that need the pages. */
  control?: string;
}

/** What a file of tests wants of its machine. */
export interface MachineWish {
  /** Processes that it does without. */
  without?: ProcessName[];
  /** More settings for a process alone. */
  settings?: Partial<Record<ProcessName, Record<string, string>>>;
}

/** The machine of this process of tests. @throws where there is none: without it, tests would work on the real home */
export function itsMachine(): SharedMachine {
  const pool = Number(process.env.VITEST_POOL_ID);
  const machine = inject('machines')[pool - 1];
  if (!machine) throw new Error(`There is no machine for process ${pool} of the tests.`);
  return machine;
}
