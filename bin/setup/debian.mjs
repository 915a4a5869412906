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
  chromium: 'chromium',
  // Reads back what we write as Matroska chapters; only tests need it.
  mkvmerge: 'mkvtoolnix',
};

/** Where a program stands, or undefined. Debian keeps servers in folders that are not on every user's PATH. */
export function pathOfProgram(name) {
  const folders = [...(process.env.PATH ?? '').split(path.delimiter), '/usr/local/sbin', '/usr/sbin', '/sbin'];
  return folders.map((folder) => path.join(folder, name)).find((file) => existsSync(file));
}

/** Installs Debian's packages for the programs named, where they are missing. */
export function ensurePrograms(names) {
  const missing = [...new Set(names.filter((name) => !pathOfProgram(name)).map((name) => PROGRAMS[name]))];
  if (missing.length === 0) return;
  console.error(`Installing ${missing.join(', ')} from Debian's packages …`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  const run = (args) => spawnSync('apt-get', args, { env, stdio: ['ignore', 'ignore', 'inherit'] }).status === 0;
  run(['update', '-qq']);
  if (!run(['install', '-y', '-qq', '--no-install-recommends', ...missing])) {
    throw new Error(`apt-get could not install ${missing.join(', ')}. Install them as root, then start again.`);
  }
}
