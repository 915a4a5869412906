import path from 'node:path';
import { defineConfig } from 'vitest/config';

/** The tests that mutants are held against: those that need no server, and start no program. */
export default defineConfig({
  resolve: { alias: { '@': path.resolve('src') } },
  test: {
    // Not those that count frame by frame: each line they pass counts, too, while a mutant is tried.
    include: ['src/core/**/*.test.ts', 'tests/outside/{gtin,mustache,webvtt}.test.ts'],
    setupFiles: ['tests/setup/properties.ts'],
    testTimeout: 60_000,
  },
});
