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
let [lines, missed] = [0, 0];
for (const measure of MEASURES.filter((each) => words.length === 0 || words.some((word) => each.includes(word)))) {
  const began = Date.now();
  const { status, out, said } = await run([process.execPath, '--import', 'tsx', measure], { cwd: root, env });
  process.stdout.write(out);
  if (status !== 0) console.error(said);
  console.error(`${measure}: ${((Date.now() - began) / 1000).toFixed(1)} s`);
  const told = out.split('\n').filter((line) => line.startsWith('{"measure"'));
  lines += told.length;
  missed += told.filter((line) => JSON.parse(line).missed !== undefined).length;
  if (status !== 0 || told.length === 0) failed.push(measure);
}
// In the short form figures mean nothing: they are only there.
const aims = isShort ? {} : { missed };
process.stdout.write(`${JSON.stringify({ measure: 'all', lines, ...aims })}\n`);
if (failed.length > 0) console.error(`Failed: ${failed.join(', ')}`);
process.exit(failed.length > 0 ? 1 : 0);
