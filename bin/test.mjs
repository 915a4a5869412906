import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { ensureBuild } from './setup/build.mjs';
import { DATABASE_PROGRAMS, ensurePrograms } from './setup/debian.mjs';
import { ensurePackages } from './setup/packages.mjs';

const root = path.dirname(path.dirname(fileURLToPath(import.meta.url)));
const report = path.join(mkdtempSync(path.join(os.tmpdir(), 'kettle-report-')), 'tests.json');

function check(name, args) {
  console.error(`\n— ${name}`);
  const { status } = spawnSync(process.execPath, args, { cwd: root, stdio: 'inherit' });
  if (status !== 0) failed.push(name);
}

const failed = [];
ensurePrograms([...DATABASE_PROGRAMS, 'ffmpeg', 'ffprobe', 'chromium', 'mkvmerge']);
ensurePackages(root);
// Before the types are checked: the build writes the declarations that pages need.
await ensureBuild(root);
check('lint, format and import directions', [
  'node_modules/@biomejs/biome/bin/biome',
  'ci',
  '--error-on-warnings',
  '.',
]);
check('types', ['node_modules/typescript/bin/tsc', '-p', '.']);
check('unit, outside, integration and end-to-end tests', [
  'node_modules/vitest/vitest.mjs',
  'run',
  ...['--reporter=default', '--reporter=json', `--outputFile.json=${report}`],
  ...process.argv.slice(2),
]);

const { numPassedTests = 0, numFailedTests = 0, numPendingTests = 0 } = JSON.parse(readFileSync(report, 'utf8'));
if (failed.length > 0) console.error(`\nFailed: ${failed.join('; ')}`);
process.stdout.write(`\n${numPassedTests} passed, ${numFailedTests} failed, ${numPendingTests} skipped\n`);
process.exit(failed.length > 0 ? 1 : 0);
