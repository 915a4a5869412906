import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import path from 'node:path';

/** What the database, and so every start, needs. */
export const DATABASE_PROGRAMS = ['mariadbd', 'mariadb-install-db', 'my_print_defaults'];

const PROGRAMS = {
  mariadbd: 'mariadb-server-core',
  'mariadb-install-db': 'mariadb-server-core',
  // mariadb-install-db calls it, but Debian packs it with the client.
  my_print_defaults: 'mariadb-client-core',
  ffmpeg: 'ffmpeg',
  ffprobe: 'ffmpeg',
  'chromium-headless-shell': 'chromium-headless-shell',
  // Reads back what we write as Matroska chapters; only tests need it.
  mkvmerge: 'mkvtoolnix',
};

/** Where a program stands, or undefined. Debian keeps servers in folders that are not on every user's PATH. */
export function pathOfProgram(name) {
  const folders = [...(process.env.PATH ?? '').split(path.delimiter), '/usr/local/sbin', '/usr/sbin', '/sbin'];
  return folders.map((folder) => path.join(folder, name)).find((file) => existsSync(file));
}

/** What installs packages as the user that we are: as root itself, else by sudo where that asks nothing. */
function installer() {
  if (process.getuid?.() === 0) return ['apt-get'];
  const asksNothing = spawnSync('sudo', ['-n', 'true'], { stdio: 'ignore' }).status === 0;
  return asksNothing ? ['sudo', '-n', 'DEBIAN_FRONTEND=noninteractive', 'apt-get'] : undefined;
}

/**
 * Installs Debian's packages for the programs named, where they are missing.
 * @throws with the one command that installs them, where we may not
 */
export function ensurePrograms(names) {
  const missing = [...new Set(names.filter((name) => !pathOfProgram(name)).map((name) => PROGRAMS[name]))];
  if (missing.length === 0) return;
  const byHand = `sudo apt-get install -y --no-install-recommends ${missing.join(' ')}`;
  const [program, ...first] = installer() ?? [];
  if (!program)
    throw new Error(`Missing: ${missing.join(', ')}. Install them with this, then start again:\n\n  ${byHand}\n`);
  console.error(`Installing ${missing.join(', ')} from Debian's packages …`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  const run = (args) =>
    spawnSync(program, [...first, ...args], { env, stdio: ['ignore', 'ignore', 'inherit'] }).status === 0;
  run(['update', '-qq']);
  if (!run(['install', '-y', '-qq', '--no-install-recommends', ...missing])) {
    throw new Error(`apt-get could not install them. Install them with this, then start again:\n\n  ${byHand}\n`);
  }
}
