import { spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { once } from 'node:events';
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

const BUILT_FROM = ['src', 'package-lock.json', 'next.config.ts', 'postcss.config.mjs', 'tsconfig.json'];

function filesBelow(file) {
  if (!existsSync(file)) return [];
  const below = readdirSync(file, { withFileTypes: true });
  return below.flatMap((entry) => {
    const inner = path.join(file, entry.name);
    return entry.isDirectory() ? filesBelow(inner) : [inner];
  });
}

function fingerprint(root) {
  const hash = createHash('sha256');
  for (const name of BUILT_FROM) {
    const at = path.join(root, name);
    const files = path.extname(name) === '' ? filesBelow(at).filter((file) => !/\.test\.tsx?$/.test(file)) : [at];
    for (const file of files.sort()) hash.update(path.relative(root, file)).update(readFileSync(file));
  }
  return hash.digest('hex');
}

/** Builds the pages where the sources have changed since the last build. */
export async function ensureBuild(root) {
  const stamp = path.join(root, '.next', 'kettle-stamp');
  const now = fingerprint(root);
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === now) return;
  console.error('Building the pages …');
  const built = spawn(process.execPath, ['node_modules/next/dist/bin/next', 'build'], {
    cwd: root,
    env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1', NODE_ENV: 'production' },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  let said = '';
  for (const stream of [built.stdout, built.stderr]) {
    stream.on('data', (chunk) => {
      said += chunk;
    });
  }
  const [status] = await once(built, 'close');
  if (status !== 0) throw new Error(`The pages could not be built:\n${said}`);
  writeFileSync(stamp, now);
}

if (process.argv[1] === fileURLToPath(import.meta.url)) await ensureBuild(process.cwd());
