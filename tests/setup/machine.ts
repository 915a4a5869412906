import type { ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import net from 'node:net';
import os from 'node:os';
import path from 'node:path';
import { startDatabase } from '../../bin/setup/database.mjs';
import { endProcess, processEnvironment, startProcess, untilAnswers } from '../../bin/setup/processes.mjs';

/** A port that nothing listens on now. */
function freePort(): Promise<number> {
  return new Promise((resolve, reject) => {
    const server = net.createServer();
    server.on('error', reject);
    server.listen(0, '127.0.0.1', () => {
      const { port } = server.address() as net.AddressInfo;
      server.close(() => resolve(port));
    });
  });
}

const root = path.resolve('.');

/** A Kettle Drop of a test's own: its ports, its home, its database, and the processes that the test asks for. */
export interface Machine {
  env: Record<string, string | undefined>;
  start(name: 'stand-ins' | 'worker' | 'web'): ChildProcess;
  end(): Promise<void>;
}

/** Starts a database and the processes named, all on free ports, and writes the settings into this environment too. */
export async function startMachine(names: ('stand-ins' | 'worker' | 'web')[]): Promise<Machine> {
  const home = mkdtempSync(path.join(os.tmpdir(), 'kettle-test-'));
  const ports = {
    KETTLE_PORT: await freePort(),
    KETTLE_DB_PORT: await freePort(),
    KETTLE_SITES_PORT: await freePort(),
  };
  Object.assign(process.env, { KETTLE_HOME: home, KETTLE_LEASE_SECONDS: '2', KETTLE_LOG_LEVEL: 'warn' });
  for (const [name, port] of Object.entries(ports)) process.env[name] = String(port);
  const env = processEnvironment(root);
  const database = await startDatabase(home, ports.KETTLE_DB_PORT);
  const { migrate, closeDatabase } = await import('@/store/database');
  await migrate();
  await closeDatabase();
  const children: ChildProcess[] = [];
  const start: Machine['start'] = (name) => {
    const child = startProcess(root, name, env);
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
    start,
    async end() {
      await Promise.all(children.map((child) => endProcess(child)));
      await endProcess(database);
      rmSync(home, { recursive: true, force: true });
    },
  };
}
