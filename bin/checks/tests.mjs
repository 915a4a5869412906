import { existsSync, mkdtempSync, readFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { run } from './run.mjs';

/** How many files are run at a second try; where more fail at the first, it is no accident. What fails in one often fails what follows there. */
const MOST_SECOND = 2;

const VITEST = [process.execPath, 'node_modules/vitest/vitest.mjs'];
const reports = mkdtempSync(path.join(os.tmpdir(), 'kettle-report-'));
/** Where each test file notes the processor seconds that it took (tests/setup/spent.ts). */
export const SPENT = path.join(reports, 'spent');

/** Runs a project's tests, or those of its files that are named. @param files words of their paths */
async function once(root, project, files, options) {
  const report = path.join(reports, `${project}-${Date.now()}.json`);
  const args = [
    ...['run', '--project', project, ...(options.args ?? [])],
    ...['--reporter=default', '--reporter=json', `--outputFile.json=${report}`],
    ...files,
  ];
  const env = { ...process.env, KETTLE_SPENT: SPENT };
  const ended = await run([...VITEST, ...args], { cwd: root, env, ...options });
  const results = existsSync(report) ? JSON.parse(readFileSync(report, 'utf8')).testResults : [];
  return { ...ended, results };
}

/** Whether a project has a file that one of these words names; without words it has. */
async function hasAny(root, project, words) {
  if (words.length === 0) return true;
  const listed = await run([...VITEST, 'list', '--filesOnly', '--json', '--project', project, ...words], { cwd: root });
  // It says so in words where it finds none.
  return listed.said.includes('"file"');
}

/**
 * Runs the tests of a project.
 * @param options.secondTry whether files that fail are run once more, on machines of their own state
 * @returns undefined where the words name none of its files; else how it ended, what it said, its processor seconds, its
 *   results by file, and the names of what passed only at the second try
 */
export async function testsOf(root, project, words, { secondTry = false, ...options } = {}) {
  if (!(await hasAny(root, project, words))) return undefined;
  const first = await once(root, project, words, options);
  const broken = first.results.filter(({ status }) => status !== 'passed');
  if (!secondTry || broken.length === 0 || broken.length > MOST_SECOND) return { ...first, second: [] };
  const again = await once(
    root,
    project,
    broken.map(({ name }) => path.relative(root, name)),
    options,
  );
  const others = first.results.filter(({ status }) => status === 'passed');
  return {
    status: again.status,
    said: `${first.said}\n— once more: ${broken.map(({ name }) => path.basename(name)).join(', ')}\n${again.said}`,
    seconds: first.seconds + again.seconds,
    results: [...others, ...again.results],
    second:
      again.status === 0
        ? broken.flatMap(({ name, message, assertionResults }) => {
            const failed = assertionResults.filter((each) => each.status === 'failed');
            const all = failed.map(({ fullName, failureMessages }) => `${fullName}\n${failureMessages[0]}`);
            return all.length > 0 ? all : [`${path.relative(root, name)}\n${message}`];
          })
        : [],
  };
}
