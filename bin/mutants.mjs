import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { run } from './checks/run.mjs';
import { ensurePackages } from './setup/packages.mjs';

/** What is tried: folders of the core, and what of the desk computes without asking anybody. */
const ROOMS = [
  ...['time', 'release', 'drop', 'chapters', 'markers', 'fitting', 'words', 'preflight', 'renditions'],
  ...['defaults', 'declarations', 'delivery', 'framing', 'line', 'rights', 'notices', 'work', 'likeness', 'inbox'],
].map((room) => `src/core/${room}`);
const REPORT = '.mutants/report.json';
/** States of a mutant that a test has noticed. */
const NOTICED = ['Killed', 'Timeout'];
const HELD = [...NOTICED, 'Survived', 'NoCoverage'];

const root = path.dirname(path.dirname(fileURLToPath(import.meta.url)));
const words = process.argv.slice(2);
ensurePackages(root);
mkdirSync(path.join(root, '.mutants'), { recursive: true });

/** The mutants of a room, each with its file, line, what it became, and what came of it. */
async function mutantsOf(room) {
  const mutate = `${room}/**/*.ts,!${room}/**/*.test.ts`;
  const command = ['node_modules/@stryker-mutator/core/bin/stryker.js', 'run', '--mutate', mutate];
  const { status, said, seconds } = await run([process.execPath, ...command], { cwd: root });
  if (status !== 0) throw new Error(`${room}: ${said}`);
  const { files } = JSON.parse(readFileSync(path.join(root, REPORT), 'utf8'));
  const mutants = Object.entries(files).flatMap(([file, { source, mutants: all }]) =>
    all.map(({ status: state, location, replacement }) => ({
      state,
      at: `${file}:${location.start.line}`,
      was: source.split('\n')[location.start.line - 1]?.trim(),
      became: replacement,
    })),
  );
  return { mutants, seconds };
}

const rows = [];
for (const room of ROOMS.filter((each) => words.length === 0 || words.some((word) => each.endsWith(`/${word}`)))) {
  const { mutants, seconds } = await mutantsOf(room);
  const held = mutants.filter(({ state }) => HELD.includes(state));
  const noticed = held.filter(({ state }) => NOTICED.includes(state)).length;
  const share = Math.round((noticed / Math.max(1, held.length)) * 1000) / 10;
  rows.push({ room, mutants: held.length, noticed, share });
  console.error(`${room}: ${noticed} of ${held.length} noticed, ${share} % (${seconds.toFixed(0)} processor seconds)`);
  const left = held.filter(({ state }) => !NOTICED.includes(state));
  const lines = left.map(({ state, at, was, became }) => `${state} ${at}\n  was    ${was}\n  became ${became}`);
  writeFileSync(path.join(root, '.mutants', `${room.replaceAll('/', '-')}.txt`), `${lines.join('\n')}\n`);
}
if (words.length === 0) {
  const table = rows.map(({ room, mutants, noticed, share }) => `| ${room} | ${mutants} | ${noticed} | ${share} % |`);
  const head = ['| room | mutants | noticed | share |', '|---|---|---|---|'];
  const text = `# Changed code that tests notice\n\nMade by \`npm run mutants\`: each mutant is one small change of the code.\n\n`;
  writeFileSync(path.join(root, 'docs', 'mutants.md'), `${text}${[...head, ...table].join('\n')}\n`);
}
