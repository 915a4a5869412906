import { readFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { foundTooFew, lastLines } from './checks/report.mjs';
import { run } from './checks/run.mjs';
import { SPENT, testsOf } from './checks/tests.mjs';
import { DATABASE_PROGRAMS, ensurePrograms } from './setup/debian.mjs';
import { ensurePackages } from './setup/packages.mjs';

const root = path.dirname(path.dirname(fileURLToPath(import.meta.url)));
const words = process.argv.slice(2);
const began = Date.now();
const failed = [];
const checks = [];
const projects = [];

/** Processor seconds of what this process has started and waited for (proc(5), cutime and cstime, in hundredths). */
function secondsOfChildren() {
  const fields = readFileSync('/proc/self/stat', 'utf8').split(') ')[1].split(' ');
  return (Number(fields[13]) + Number(fields[14])) / 100;
}

ensurePrograms([...DATABASE_PROGRAMS, 'ffmpeg', 'ffprobe', 'chromium-headless-shell', 'mkvmerge']);
ensurePackages(root);
checks.push({ name: 'installs', seconds: secondsOfChildren() });

/** Runs something that passes or does not. */
async function check(name, command, options = {}) {
  const { status, said, seconds } = await run([process.execPath, ...command], { cwd: root, ...options });
  console.error(`\n— ${name}\n${said}`);
  checks.push({ name, seconds });
  if (status !== 0) failed.push(name);
  return status === 0;
}

/** Runs the tests of a project, where the words name any of them. */
async function test(name, project, options) {
  const ended = await testsOf(root, project, words, options);
  if (!ended) return;
  console.error(`\n— ${name}\n${ended.said}`);
  projects.push({ name: project, ...ended });
  if (ended.status !== 0) failed.push(name);
}

// Two halves: what waits for sites would take half as much again beside what computes, since they share the cores' caches.
let pages = false;
await Promise.all([
  // They wait for sites, workers and the clock of a machine that may be busy; what needs a second try is named at the end.
  test('integration tests', 'integration', { secondTry: true }),
  check('pages', ['bin/setup/build.mjs'], { niceness: 5 }).then((built) => {
    pages = built;
  }),
  check(
    'lint, format and import directions',
    ['node_modules/@biomejs/biome/bin/biome', 'ci', '--error-on-warnings', '.'],
    { niceness: 5 },
  ),
]);
await Promise.all([
  // Without the pages the others go on to their end, and are told of.
  pages && test('end-to-end tests', 'e2e', { secondTry: true }),
  test('unit and outside tests', 'unit', { args: ['--maxWorkers=1'], niceness: 5 }),
  // Only now: the build writes the declarations that pages need.
  pages && check('types', ['node_modules/typescript/bin/tsc', '-p', '.'], { niceness: 5 }),
]);
// When nothing else runs: it measures.
if (words.length === 0) await check('measurements, short', ['bin/bench.mjs', '--short']);

const tooFew = foundTooFew(projects, words.length === 0);
const seconds = Math.round((Date.now() - began) / 1000);
const minutes = `${Math.floor(seconds / 60)} min ${seconds % 60} s`;
process.stdout.write(lastLines(root, { projects, checks, minutes, spent: SPENT }).join('\n'));
const wrong = [...failed, ...tooFew];
if (wrong.length > 0) console.error(`Failed: ${wrong.join('; ')}`);
process.exit(wrong.length > 0 ? 1 : 0);
