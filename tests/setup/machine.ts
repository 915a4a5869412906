import type { ChildProcess } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import net from 'node:net';
import os from 'node:os';
import path from 'node:path';
import { databaseSocket } from '@/store/database-socket.mjs';
import { startDatabase } from '../../bin/setup/database.mjs';
import { endProcess, processEnvironment, startProcess, untilAnswers } from '../../bin/setup/processes.mjs';
import { kettle } from './command';
import { copyMadeDatabase, keepMadeDatabase } from './made-database';

function listens(port: number): Promise<boolean> {
  return new Promise((resolve) => {
    const server = net.createServer();
    server.on('error', () => resolve(false));
    server.listen(port, '127.0.0.1', () => server.close(() => resolve(true)));
  });
}

/**
 * A run of `count` ports that nothing listens on now. They lie below the range from which the system takes the ports
 * of outgoing connections (RFC 6335 §6 and Linux' own): one of those could sit on a port while its server is restarted.
 */
export async function freePorts(count: number): Promise<number> {
  for (;;) {
    const first = 10_000 + Math.floor(Math.random() * 19_000);
    const free = await Promise.all(Array.from({ length: count }, (_, offset) => listens(first + offset)));
    if (free.every(Boolean)) return first;
  }
}

/** The last lines that each process of a machine wrote: what one needs to see when a test with processes fails. */
export function logTails(home: string): string {
  const logs = path.join(home, 'logs');
  return readdirSync(logs)
    .map((name) => `— ${name}\n${readFileSync(path.join(logs, name), 'utf8').split('\n').slice(-25).join('\n')}`)
    .join('\n');
}

const root = path.resolve('.');

/** A Kettle Drop of a test's own: its ports, its home, its database, and the processes that the test asks for. */
export interface Machine {
  env: Record<string, string | undefined>;
  /** What is set for it alone. */
  settings: Record<string, string>;
  /** @param more settings for this process alone */
  start(name: 'stand-ins' | 'worker' | 'web', more?: Record<string, string>): ChildProcess;
  /** Kills the database as a bad day would, and starts it again. */
  killDatabase(): Promise<void>;
  end(): Promise<void>;
}

/** Starts a database and the processes named, all on free ports, and writes the settings into this environment too. */
export async function startMachine(names: ('stand-ins' | 'worker' | 'web')[]): Promise<Machine> {
  const home = mkdtempSync(path.join(os.tmpdir(), 'kettle-test-'));
  const ports = {
    KETTLE_PORT: await freePorts(1),
    KETTLE_DB_PORT: await freePorts(1),
    KETTLE_SITES_PORT: await freePorts(6),
  };
  const quick = {
    KETTLE_LEASE_SECONDS: '2',
    KETTLE_SITE_HOUR_SECONDS: '0.02',
    KETTLE_HOLD_SECONDS: '0',
    KETTLE_READ_SECONDS: '0',
  };
  const numbers = Object.entries(ports).map(([name, port]) => [name, String(port)]);
  const settings = { KETTLE_HOME: home, KETTLE_LOG_LEVEL: 'warn', ...quick, ...Object.fromEntries(numbers) };
  Object.assign(process.env, settings);
  const env = processEnvironment(root);
  const isMade = copyMadeDatabase(home);
  let database = await startDatabase(home, ports.KETTLE_DB_PORT);
  const migrated = await kettle(['migrate'], env);
  if (migrated.status !== 0) throw new Error(migrated.said);
  if (!isMade) {
    await endProcess(database);
    keepMadeDatabase(home);
    database = await startDatabase(home, ports.KETTLE_DB_PORT);
  }
  const children: ChildProcess[] = [];
  const start: Machine['start'] = (name, more = {}) => {
    const child = startProcess(root, name, { ...env, ...more });
    children.push(child);
    return child;
  };
  for (const name of names) start(name);
  if (names.includes('stand-ins')) {
    await untilAnswers(`http://127.0.0.1:${ports.KETTLE_SITES_PORT}/.well-known/oauth-authorization-server`);
  }
  if (names.includes('web')) await untilAnswers(`http://127.0.0.1:${ports.KETTLE_PORT}/api/health`);
  return {
    env,
    settings,
    start,
    async killDatabase() {
      await endProcess(database, 'SIGKILL');
      database = await startDatabase(home, ports.KETTLE_DB_PORT);
    },
    async end() {
      await Promise.all(children.map((child) => endProcess(child)));
      await endProcess(database);
      for (const folder of [home, path.dirname(databaseSocket(ports.KETTLE_DB_PORT))]) {
        rmSync(folder, { recursive: true, force: true });
      }
    },
  };
}
