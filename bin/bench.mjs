import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { run } from './checks/run.mjs';
import { ensureBuild } from './setup/build.mjs';
import { DATABASE_PROGRAMS, ensurePrograms } from './setup/debian.mjs';
import { ensurePackages } from './setup/packages.mjs';

/** Every measurement. */
const MEASURES = [
  'bench/markers.ts',
  'bench/layers.ts',
  'bench/board.ts',
  'bench/preflight.ts',
  'bench/renditions.ts',
  'bench/transfers.ts',
  'bench/four-sites.ts',
  'bench/parts.ts',
  'bench/release.ts',
  'bench/faults.ts',
];

/** `--short`: each in a form of a few seconds, that shows that it measures. Other words: only those that they name. */
const words = process.argv.slice(2).filter((word) => word !== '--short');
const isShort = process.argv.includes('--short');
const root = path.dirname(path.dirname(fileURLToPath(import.meta.url)));
ensurePrograms([...DATABASE_PROGRAMS, 'ffmpeg', 'ffprobe', 'chromium-headless-shell']);
ensurePackages(root);
await ensureBuild(root);
const env = { ...process.env, ...(isShort && { BENCH_SHORT: '1' }) };
const failed = [];
const lines = [];

/** Measures in a process of its own; what it says are lines of JSON. */
async function measured(name, command) {
  const began = Date.now();
  const { status, out, said } = await run([process.execPath, '--import', 'tsx', ...command], { cwd: root, env });
  process.stdout.write(out);
  if (status !== 0 || isShort) console.error(said);
  console.error(`${name}: ${((Date.now() - began) / 1000).toFixed(1)} s`);
  const told = out.split('\n').filter((line) => line.startsWith('{"measure"'));
  lines.push(...told.map((line) => JSON.parse(line)));
  if (status !== 0 || told.length === 0) failed.push(name);
}

const wanted = MEASURES.filter((each) => words.length === 0 || words.some((word) => each.includes(word)));
if (isShort) await measured('all, short', ['bench/short.ts', ...wanted]);
else for (const measure of wanted) await measured(measure, [measure]);
// In the short form figures mean nothing: they are only there.
const aims = isShort ? {} : { missed: lines.filter(({ missed }) => missed !== undefined).length };
process.stdout.write(`${JSON.stringify({ measure: 'all', lines: lines.length, ...aims })}\n`);
if (failed.length > 0) console.error(`Failed: ${failed.join(', ')}`);
process.exit(failed.length > 0 ? 1 : 0);
