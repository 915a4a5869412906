import { spawn, spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, openSync } from 'node:fs';
import net from 'node:net';
import os from 'node:os';
import path from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { pathOfProgram } from './debian.mjs';

/** Whether something listens on a port of this machine. */
export function listens(port) {
  return new Promise((resolve) => {
    const socket = net.connect({ host: '127.0.0.1', port }, () => {
      socket.destroy();
      resolve(true);
    });
    socket.on('error', () => resolve(false));
  });
}

/**
 * Starts a MariaDB of our own on loopback, its data below `home`, and waits until it listens.
 * @returns the child process; ending it with SIGTERM closes the database cleanly
 */
export async function startDatabase(home, port) {
  if (await listens(port)) throw new Error(`Port ${port} is taken; set KETTLE_DB_PORT to a free one.`);
  const data = path.join(home, 'database');
  const user = process.getuid?.() === 0 ? ['--user=root'] : [];
  mkdirSync(path.join(home, 'logs'), { recursive: true });
  const log = openSync(path.join(home, 'logs', 'database.log'), 'a');
  if (!existsSync(path.join(data, 'mysql'))) {
    const made = spawnSync(
      pathOfProgram('mariadb-install-db'),
      ['--no-defaults', ...user, `--datadir=${data}`, '--auth-root-authentication-method=normal', '--skip-test-db'],
      { stdio: ['ignore', log, log] },
    );
    if (made.status !== 0) throw new Error(`The database could not be made; ${home}/logs/database.log says why.`);
  }
  const child = spawn(
    pathOfProgram('mariadbd'),
    [
      '--no-defaults',
      ...user,
      `--datadir=${data}`,
      `--port=${port}`,
      '--bind-address=127.0.0.1',
      // A socket's path has at most 107 bytes, so it cannot stand below a home that lies deep.
      `--socket=${path.join(os.tmpdir(), `kettle-db-${port}.sock`)}`,
      `--pid-file=${path.join(data, 'pid')}`,
      '--skip-name-resolve',
      '--character-set-server=utf8mb4',
      '--innodb-buffer-pool-size=128M',
      '--performance-schema=OFF',
    ],
    // Of its own process group: Ctrl-C reaches us first, and we close it after those who use it.
    { stdio: ['ignore', log, log], detached: true },
  );
  for (let tries = 0; tries < 300; tries += 1) {
    if (child.exitCode !== null) break;
    if (await listens(port)) return child;
    await pause(100);
  }
  throw new Error(`The database did not start; ${home}/logs/database.log says why.`);
}
