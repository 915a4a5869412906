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
const { status } = spawnSync(process.execPath, ['--import', 'tsx', 'bench/transfers.ts'], {
  cwd: root,
  stdio: 'inherit',
});
process.exit(status ?? 1);
