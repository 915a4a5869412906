import { spawnSync } from 'node:child_process';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { ensureBuild } from './setup/build.mjs';
import { DATABASE_PROGRAMS, ensurePrograms } from './setup/debian.mjs';
import { ensurePackages } from './setup/packages.mjs';

/** Every measurement; the tests run a short form of each, so that none rots. */
export const MEASURES = [
  'bench/markers.ts',
  'bench/layers.ts',
  'bench/board.ts',
  'bench/preflight.ts',
  'bench/renditions.ts',
  'bench/transfers.ts',
  'bench/four-sites.ts',
  'bench/release.ts',
  'bench/faults.ts',
];

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  const root = path.dirname(path.dirname(fileURLToPath(import.meta.url)));
  ensurePrograms([...DATABASE_PROGRAMS, 'ffmpeg', 'ffprobe']);
  ensurePackages(root);
  await ensureBuild(root);
  const failed = [];
  for (const measure of MEASURES) {
    const { status } = spawnSync(process.execPath, ['--import', 'tsx', measure], { cwd: root, stdio: 'inherit' });
    if (status !== 0) failed.push(measure);
  }
  if (failed.length > 0) console.error(`Failed: ${failed.join(', ')}`);
  process.exit(failed.length > 0 ? 1 : 0);
}
