import { spawnSync } from 'node:child_process';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { ensureBuild } from './setup/build.mjs';
import { DATABASE_PROGRAMS, ensurePrograms } from './setup/debian.mjs';
import { ensurePackages } from './setup/packages.mjs';

const root = path.dirname(path.dirname(fileURLToPath(import.meta.url)));
ensurePrograms([...DATABASE_PROGRAMS, 'ffmpeg', 'ffprobe']);
ensurePackages(root);
await ensureBuild(root);
for (const measure of ['bench/markers.ts', 'bench/layers.ts', 'bench/transfers.ts', 'bench/four-sites.ts']) {
  const { status } = spawnSync(process.execPath, ['--import', 'tsx', measure], { cwd: root, stdio: 'inherit' });
  if (status !== 0) process.exit(status ?? 1);
}
