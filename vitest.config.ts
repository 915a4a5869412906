import path from 'node:path';
import { defineConfig } from 'vitest/config';
import { BaseSequencer, type TestSpecification } from 'vitest/node';
import { PATIENCE, TEST_PATIENCE } from './tests/setup/patience';

const alias = { '@': path.resolve('src') };
const setupFiles = ['tests/setup/spent.ts', 'tests/setup/properties.ts'];
const ITS_MACHINE = 'tests/setup/its-machine.ts';
const timeouts = { testTimeout: TEST_PATIENCE, hookTimeout: TEST_PATIENCE };
/** What a file loads is loaded once for all of a process. */
const isolate = false;

/** Files that take long though they are short: the others fill the time beside them. Without this, they would be the last. */
const LONG = [
  ...['release.test.ts', 'crash.test.ts', 'never-public.test.ts', 'release-model.test.ts'],
  ...['start.test.ts', 'trust.test.ts', 'first-slice.test.ts'],
];

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
          isolate,
          ...timeouts,
        },
      },
      {
        resolve: { alias },
        test: {
          name: 'integration',
          setupFiles: [ITS_MACHINE, ...setupFiles, 'tests/setup/empty-desk.ts'],
          include: ['tests/integration/**/*.test.ts'],
          globalSetup: 'tests/setup/integration.ts',
          pool: 'forks',
          // They wait for sites more than they compute.
          maxWorkers: 5,
          isolate,
          expect: { poll: { timeout: PATIENCE, interval: 100 } },
          ...timeouts,
        },
      },
      {
        resolve: { alias },
        test: {
          name: 'e2e',
          setupFiles: [ITS_MACHINE, ...setupFiles],
          expect: { poll: { timeout: PATIENCE, interval: 200 } },
          include: ['tests/e2e/**/*.test.ts'],
          globalSetup: 'tests/setup/e2e.ts',
          pool: 'forks',
          // They wait for pages and sites, too, so that two would leave cores idle.
          maxWorkers: 3,
          isolate,
          ...timeouts,
        },
      },
    ],
  },
});
