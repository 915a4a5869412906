import path from 'node:path';
import { defineConfig } from 'vitest/config';
import { BaseSequencer, type TestSpecification } from 'vitest/node';

const alias = { '@': path.resolve('src') };
const setupFiles = ['tests/setup/properties.ts'];
// CI's machine is shared and stalls for seconds; what passed only at the second try is named at the end (bin/test.mjs).
const retry = process.env.CI ? 1 : 0;

/** Files that take long though they are short: the others fill the time beside them. Without this, they would be the last. */
const LONG = ['bench.test.ts', 'sites.test.ts', 'crash.test.ts'];

class LongFirst extends BaseSequencer {
  override async sort(files: TestSpecification[]): Promise<TestSpecification[]> {
    const sorted = await super.sort(files);
    const isLong = ({ moduleId }: TestSpecification) => LONG.includes(path.basename(moduleId));
    return [...sorted.filter(isLong), ...sorted.filter((file) => !isLong(file))];
  }
}

export default defineConfig({
  test: {
    sequence: { sequencer: LongFirst },
    projects: [
      {
        resolve: { alias },
        test: {
          name: 'unit',
          setupFiles,
          include: ['src/**/*.test.ts', 'stand-ins/**/*.test.ts', 'tests/outside/**/*.test.ts'],
          // What they load keeps nothing from one file to the next, and is loaded once.
          isolate: false,
          // Some of them start the command line or ffmpeg several times, on a machine that stalls, standing back behind others.
          testTimeout: 180_000,
        },
      },
      {
        resolve: { alias },
        test: {
          name: 'integration',
          setupFiles: ['tests/setup/its-machine.ts', ...setupFiles],
          retry,
          include: ['tests/integration/**/*.test.ts'],
          globalSetup: 'tests/setup/integration.ts',
          pool: 'forks',
          maxWorkers: 3,
          isolate: false,
          // Each look asks the database, beside those that are to get on.
          expect: { poll: { timeout: 10_000, interval: 100 } },
          testTimeout: 90_000,
          hookTimeout: 60_000,
        },
      },
      {
        resolve: { alias },
        test: {
          name: 'e2e',
          retry,
          // Two cores run all suites at a time: a page may take longer than the second that is waited for by default.
          expect: { poll: { timeout: 10_000, interval: 200 } },
          include: ['tests/e2e/**/*.test.ts'],
          pool: 'forks',
          // Each file has a machine of its own.
          maxWorkers: 2,
          testTimeout: 120_000,
          hookTimeout: 120_000,
        },
      },
    ],
  },
});
