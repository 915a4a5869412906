import { spawn, spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { ensureBuild } from './setup/build.mjs';
import { DATABASE_PROGRAMS, ensurePrograms } from './setup/debian.mjs';
import { ensurePackages } from './setup/packages.mjs';

const root = path.dirname(path.dirname(fileURLToPath(import.meta.url)));
const reports = mkdtempSync(path.join(os.tmpdir(), 'kettle-report-'));

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

/** Runs the tests of a project; what they print is shown at once, or when they are done. */
async function test(name, project, { atOnce = false, args: more = [] } = {}) {
  if (atOnce) console.error(`\n— ${name}`);
  const report = path.join(reports, `${project}.json`);
  const args = [
    ...['node_modules/vitest/vitest.mjs', 'run', '--passWithNoTests', '--project', project, ...more],
    ...['--reporter=default', '--reporter=json', `--outputFile.json=${report}`],
    ...process.argv.slice(2),
  ];
  const tests = spawn(process.execPath, args, { cwd: root, stdio: atOnce ? 'inherit' : ['ignore', 'pipe', 'pipe'] });
  const said = [];
  for (const stream of [tests.stdout, tests.stderr]) stream?.on('data', (data) => said.push(data));
  const status = await new Promise((resolve) => tests.once('close', resolve));
  if (!atOnce) console.error(`\n— ${name}\n${Buffer.concat(said)}`);
  if (status !== 0) failed.push(name);
  return existsSync(report) ? JSON.parse(readFileSync(report, 'utf8')) : {};
}

// Side by side: the one waits for sites while the other computes, and each has a machine of its own. Those that only compute
// go one by one, so that the others get on.
const results = await Promise.all([
  test('integration tests', 'integration', { atOnce: true }),
  test('end-to-end tests', 'e2e'),
  test('unit and outside tests', 'unit', { args: ['--maxWorkers=1'] }),
]);
const sum = (field) => results.reduce((all, each) => all + (each[field] ?? 0), 0);
const second = results
  .flatMap(({ testResults }) => testResults ?? [])
  .flatMap(({ assertionResults }) => assertionResults)
  .filter(({ status, failureMessages }) => status === 'passed' && failureMessages.length > 0);
for (const { fullName, failureMessages } of second) {
  console.error(`\nPassed only at the second try: ${fullName}\n${failureMessages[0]}`);
}
if (failed.length > 0) console.error(`\nFailed: ${failed.join('; ')}`);
process.stdout.write(
  `\n${sum('numPassedTests')} passed, ${sum('numFailedTests')} failed, ${sum('numPendingTests')} skipped\n`,
);
process.exit(failed.length > 0 ? 1 : 0);
