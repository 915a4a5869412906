import type { ChildProcess } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import knex from 'knex';
import { databaseAddress } from '@/store/database-address';
import { databaseSocket } from '@/store/database-socket.mjs';
import { startDatabase } from '../../bin/setup/database.mjs';
import { endProcess, processEnvironment, startProcess, untilAnswers } from '../../bin/setup/processes.mjs';
import { startedKettle } from './command';
import { keepAsMade } from './fresh-database';
import { copyMadeDatabase, keepMadeDatabase } from './made-database';
import { heldPorts } from './ports';

/** The last lines that each process of a machine wrote: what one needs to see when a test with processes fails. */
export function logTails(home: string): string {
  const logs = path.join(home, 'logs');
  return readdirSync(logs)
    .map((name) => `— ${name}\n${readFileSync(path.join(logs, name), 'utf8').split('\n').slice(-25).join('\n')}`)
    .join('\n');
}

const root = path.resolve('.');

/** The four sites, and mail with its page. */
const SITE_PORTS = 6;

export type ProcessName = 'stand-ins' | 'worker' | 'web';

/** A Kettle Drop of a test's own: its ports, its home, its database, and the processes that the test asks for. */
export interface Machine {
  env: Record<string, string | undefined>;
  /** What is set for it alone. */
  settings: Record<string, string>;
  /** @param more settings for this process alone */
  start(name: ProcessName, more?: Record<string, string>): ChildProcess;
  /** Waits until a process that listens does. */
  untilListens(name: 'stand-ins' | 'web'): Promise<void>;
  /** Ends its processes; the database goes on. */
  endProcesses(): Promise<void>;
  /** Kills the database as a bad day would, and starts it again. */
  killDatabase(): Promise<void>;
  end(): Promise<void>;
}

async function rememberAsMade(port: number): Promise<void> {
  const db = knex({ client: 'mysql2', connection: databaseAddress(undefined, port), pool: { min: 0, max: 1 } });
  await keepAsMade(db);
  await db.destroy();
}

/** Starts a database and the processes named, all on free ports, and writes the settings into this environment too. */
export async function startMachine(names: ProcessName[]): Promise<Machine> {
  const home = mkdtempSync(path.join(os.tmpdir(), 'kettle-test-'));
  const held = await heldPorts(2 + SITE_PORTS);
  const ports = { KETTLE_PORT: held.first, KETTLE_DB_PORT: held.first + 1, KETTLE_SITES_PORT: held.first + 2 };
  const quick = {
    KETTLE_LEASE_SECONDS: '2',
    KETTLE_SITE_HOUR_SECONDS: '0.02',
    KETTLE_HOLD_SECONDS: '0',
    KETTLE_READ_SECONDS: '0',
    KETTLE_WATCH_SECONDS: '0',
  };
  const numbers = Object.entries(ports).map(([name, port]) => [name, String(port)]);
  const settings = { KETTLE_HOME: home, KETTLE_LOG_LEVEL: 'warn', ...quick, ...Object.fromEntries(numbers) };
  Object.assign(process.env, settings);
  const env = processEnvironment(root);
  const isMade = copyMadeDatabase(home);
  let database = await startDatabase(home, ports.KETTLE_DB_PORT);
  const migrated = await startedKettle(['migrate'], env);
  if (migrated.status !== 0) throw new Error(migrated.said);
  if (!isMade) {
    await rememberAsMade(ports.KETTLE_DB_PORT);
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
  const answers = {
    'stand-ins': `http://127.0.0.1:${ports.KETTLE_SITES_PORT}/.well-known/oauth-authorization-server`,
    web: `http://127.0.0.1:${ports.KETTLE_PORT}/api/health`,
  };
  const endProcesses = async () => {
    await Promise.all(children.splice(0).map((child) => endProcess(child)));
  };
  const untilListens: Machine['untilListens'] = (name) => untilAnswers(answers[name]);
  for (const name of names) start(name);
  await Promise.all(names.map((name) => name !== 'worker' && untilListens(name)));
  return {
    env,
    settings,
    start,
    untilListens,
    endProcesses,
    async killDatabase() {
      await endProcess(database, 'SIGKILL');
      database = await startDatabase(home, ports.KETTLE_DB_PORT);
    },
    async end() {
      await endProcesses();
      await endProcess(database);
      for (const folder of [home, path.dirname(databaseSocket(ports.KETTLE_DB_PORT))]) {
        rmSync(folder, { recursive: true, force: true });
      }
      held.release();
    },
  };
}
