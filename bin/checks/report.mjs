import { existsSync, readFileSync } from 'node:fs';
import path from 'node:path';

const DEAREST = 10;

/** How many tests each project has at least: a run that finds fewer has lost some, and fails. */
const LEAST = new URL('./least.json', import.meta.url);

const tests = (results) => results.flatMap(({ assertionResults }) => assertionResults);
const count = (results, ...states) => tests(results).filter(({ status }) => states.includes(status)).length;

/** What is wrong with how many tests were found. */
export function foundTooFew(projects, isWhole) {
  const found = projects.reduce((sum, { results }) => sum + tests(results).length, 0);
  if (found === 0) return ['no test was found'];
  if (!isWhole) return [];
  const least = JSON.parse(readFileSync(LEAST, 'utf8'));
  return projects.flatMap(({ name, results }) => {
    const there = tests(results).length;
    return there < least[name] ? [`${name}: ${there} tests were found, and there are at least ${least[name]}`] : [];
  });
}

/** The files that took most of the processor, as each noted it. */
function dearest(root, spent) {
  if (!existsSync(spent)) return [];
  const lines = readFileSync(spent, 'utf8').trim().split('\n');
  const all = lines.map((line) => JSON.parse(line)).sort((one, other) => other.seconds - one.seconds);
  return all.slice(0, DEAREST).map(({ file, seconds }) => `  ${seconds.toFixed(1)} s  ${path.relative(root, file)}`);
}

/** What failed, each with the first line of why: what a file said stands far above. */
const failures = (root, results) =>
  results.flatMap(({ name, message, assertionResults }) => {
    const file = path.relative(root, name);
    const failed = assertionResults.filter(({ status }) => status === 'failed');
    if (failed.length === 0 && message) return [`Failed: ${file}: ${message.split('\n')[0]}`];
    return failed.map((each) => `Failed: ${file}: ${each.fullName}: ${(each.failureMessages[0] ?? '').split('\n')[0]}`);
  });

/** The last lines of a run. @param spent the file in which test files noted what they took */
export function lastLines(root, { projects, checks, minutes, spent }) {
  const results = projects.flatMap((project) => project.results);
  const whole = [...checks, ...projects].map(({ name, seconds }) => ({ name, seconds }));
  const sum = whole.reduce((all, { seconds }) => all + seconds, 0);
  const skipped = tests(results).filter(({ status }) => ['skipped', 'pending', 'todo', 'disabled'].includes(status));
  return [
    '',
    `Processor seconds: ${sum.toFixed(0)} (${whole.map(({ name, seconds }) => `${name} ${seconds.toFixed(0)}`).join(', ')})`,
    'The dearest files:',
    ...dearest(root, spent),
    ...projects.flatMap(({ second }) => second.map((each) => `\nPassed only at the second try: ${each}`)),
    ...failures(root, results),
    ...skipped.map(({ fullName }) => `Not run here: ${fullName}`),
    `${count(results, 'passed')} passed, ${count(results, 'failed')} failed, ${skipped.length} not run, in ${minutes}`,
    '',
  ];
}
