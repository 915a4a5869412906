import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';

/** Installs the npm packages that the lock file names, where they are missing or of an older lock file. */
export function ensurePackages(root) {
  const stamp = path.join(root, 'node_modules', '.kettle-lock');
  const lock = createHash('sha256')
    .update(readFileSync(path.join(root, 'package-lock.json')))
    .digest('hex');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock) return;
  console.error('Installing npm packages …');
  // Not `npm ci`: it refuses a lock file without the optional packages of platforms that a registry does not carry.
  const install = spawnSync('npm', ['install', '--no-save', '--no-audit', '--no-fund', '--loglevel=error'], {
    cwd: root,
    stdio: ['ignore', 'ignore', 'inherit'],
    env: { ...process.env, NODE_ENV: 'development' },
  });
  if (install.status !== 0) throw new Error('npm install failed; what it said stands above.');
  writeFileSync(stamp, lock);
}
