import path from 'node:path';
import { defineConfig } from 'vitest/config';

const alias = { '@': path.resolve('src') };

export default defineConfig({
  test: {
    projects: [
      {
        resolve: { alias },
        test: {
          name: 'unit',
          include: ['src/**/*.test.ts', 'stand-ins/**/*.test.ts', 'tests/outside/**/*.test.ts'],
          // Some of them start the command line or ffmpeg several times.
          testTimeout: 30_000,
        },
      },
      {
        resolve: { alias },
        test: {
          name: 'integration',
          include: ['tests/integration/**/*.test.ts'],
          globalSetup: 'tests/setup/integration.ts',
          pool: 'forks',
          fileParallelism: false,
          testTimeout: 90_000,
          hookTimeout: 60_000,
        },
      },
      {
        resolve: { alias },
        test: {
          name: 'e2e',
          // Two cores run two suites at a time: a page may take longer than the second that is waited for by default.
          expect: { poll: { timeout: 10_000 } },
          include: ['tests/e2e/**/*.test.ts'],
          pool: 'forks',
          fileParallelism: false,
          testTimeout: 120_000,
          hookTimeout: 120_000,
        },
      },
    ],
  },
});
