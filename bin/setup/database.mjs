import { spawn, spawnSync } from 'node:child_process';
import { chmodSync, existsSync, mkdirSync, openSync, writeFileSync } from 'node:fs';
import net from 'node:net';
import os from 'node:os';
import path from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { databaseSocket } from '../../src/store/database-socket.mjs';
import { pathOfProgram } from './debian.mjs';
import { freshLog } from './processes.mjs';

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
 * What lets the owner of this process in, by the socket alone, and takes the accounts without a password that a home of
 * earlier days still has. The server runs it at every start.
 */
function accounts() {
  const name = os.userInfo().username.replaceAll('`', '``');
  const bySocket = (user) => `ALTER USER \`${user}\`@localhost IDENTIFIED VIA unix_socket;`;
  const users = [...new Set(['root', name])];
  return [
    ...users.map((user) => `CREATE USER IF NOT EXISTS \`${user}\`@localhost IDENTIFIED VIA unix_socket;`),
    ...users.map(bySocket),
    `GRANT ALL ON *.* TO \`${name}\`@localhost WITH GRANT OPTION;`,
    "DELETE FROM mysql.global_priv WHERE Host <> 'localhost' OR User = '';",
    'FLUSH PRIVILEGES;',
    '',
  ].join('\n');
}

/**
 * Starts a MariaDB of our own, its data below `home`, and waits until it listens. Nobody else on this machine gets in: it
 * knows one account, by a socket that its owner alone reaches, and reads and writes no files outside a folder of its own.
 * @returns the child process; ending it with SIGTERM closes the database cleanly
 */
export async function startDatabase(home, port) {
  if (await listens(port)) throw new Error(`Port ${port} is taken; set KETTLE_DB_PORT to a free one.`);
  const data = path.join(home, 'database');
  const user = process.getuid?.() === 0 ? ['--user=root'] : [];
  mkdirSync(path.join(home, 'logs'), { recursive: true });
  mkdirSync(path.join(home, 'exchange'), { recursive: true });
  // Of its own: at its start a server takes every “#sql…” out of there, also what another one is just using, which then ends.
  const temporary = path.join(home, 'temporary');
  mkdirSync(temporary, { recursive: true });
  // What earlier days left open is closed, with everything below.
  chmodSync(home, 0o700);
  const start = path.join(home, 'accounts.sql');
  writeFileSync(start, accounts(), { mode: 0o600 });
  const log = openSync(freshLog(path.join(home, 'logs', 'database.log')), 'a');
  if (!existsSync(path.join(data, 'mysql'))) {
    const made = spawnSync(
      pathOfProgram('mariadb-install-db'),
      [
        '--no-defaults',
        ...user,
        `--datadir=${data}`,
        `--tmpdir=${temporary}`,
        '--auth-root-authentication-method=socket',
        '--skip-test-db',
      ],
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
      `--tmpdir=${temporary}`,
      `--port=${port}`,
      '--bind-address=127.0.0.1',
      `--socket=${databaseSocket(port)}`,
      `--init-file=${start}`,
      `--secure-file-priv=${path.join(home, 'exchange')}`,
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
