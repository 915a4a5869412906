import { spawn } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { ensureBuild } from './setup/build.mjs';
import { DATABASE_PROGRAMS, ensurePrograms } from './setup/debian.mjs';
import { ensurePackages } from './setup/packages.mjs';

const root = path.dirname(path.dirname(fileURLToPath(import.meta.url)));
const reports = mkdtempSync(path.join(os.tmpdir(), 'kettle-report-'));

const failed = [];

/** Runs a check; what it prints is shown at once, or when it is done. */
async function check(name, args, { atOnce = false, niceness = 0 } = {}) {
  if (atOnce) console.error(`\n— ${name}`);
  const child = spawn(process.execPath, args, { cwd: root, stdio: atOnce ? 'inherit' : ['ignore', 'pipe', 'pipe'] });
  os.setPriority(child.pid, niceness);
  const said = [];
  for (const stream of [child.stdout, child.stderr]) stream?.on('data', (data) => said.push(data));
  const status = await new Promise((resolve) => child.once('close', resolve));
  if (!atOnce) console.error(`\n— ${name}\n${Buffer.concat(said)}`);
  if (status !== 0) failed.push(name);
}

ensurePrograms([...DATABASE_PROGRAMS, 'ffmpeg', 'ffprobe', 'chromium', 'mkvmerge']);
ensurePackages(root);

/** Runs the tests of a project. */
async function test(name, project, { args: more = [], ...options } = {}) {
  const report = path.join(reports, `${project}.json`);
  const args = [
    ...['node_modules/vitest/vitest.mjs', 'run', '--passWithNoTests', '--project', project, ...more],
    ...['--reporter=default', '--reporter=json', `--outputFile.json=${report}`],
    ...process.argv.slice(2),
  ];
  await check(name, args, options);
  return existsSync(report) ? JSON.parse(readFileSync(report, 'utf8')) : {};
}

// Side by side: the one waits for sites while the other computes, and each has a machine of its own. Those that only compute
// go one by one and stand back, so that the others get on; they need no pages, so that they go while those are built.
async function withPages() {
  try {
    await ensureBuild(root);
  } catch (error) {
    // The others go on to their end, and are told of.
    console.error(error.message);
    failed.push('pages');
    return [];
  }
  // Those in the browser wait for pages: the others stand back for them a little.
  const both = [
    test('integration tests', 'integration', { atOnce: true, niceness: 1 }),
    test('end-to-end tests', 'e2e'),
  ];
  // Only now: the build writes the declarations that pages need.
  await check('types', ['node_modules/typescript/bin/tsc', '-p', '.']);
  return Promise.all(both);
}
const biome = ['node_modules/@biomejs/biome/bin/biome', 'ci', '--error-on-warnings', '.'];
const [results] = await Promise.all([
  Promise.all([withPages(), test('unit and outside tests', 'unit', { args: ['--maxWorkers=1'], niceness: 5 })]).then(
    (all) => all.flat(),
  ),
  check('lint, format and import directions', biome),
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
