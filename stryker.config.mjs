/** How changed code is tried against the tests; `npm run mutants` (bin/mutants.mjs) goes through it by folder. */
export default {
  packageManager: 'npm',
  testRunner: 'vitest',
  plugins: ['@stryker-mutator/vitest-runner'],
  vitest: { configFile: 'vitest.mutants.config.ts' },
  coverageAnalysis: 'perTest',
  // Those in what is worked out once, when a module loads, would each need every test.
  ignoreStatic: true,
  reporters: ['json'],
  jsonReporter: { fileName: '.mutants/report.json' },
  tempDirName: '.mutants/sandbox',
  ignorePatterns: ['.next', '.kettle', '.programs', 'docs', 'bench'],
  concurrency: 2,
  timeoutMS: 10_000,
  // It would rewrite it by TypeScript's JavaScript API, which TypeScript 7 has not.
  tsconfigFile: 'none',
};
