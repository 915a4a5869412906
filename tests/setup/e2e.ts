import type { ChildProcess } from 'node:child_process';
import { rmSync } from 'node:fs';
import http from 'node:http';
import type { AddressInfo } from 'node:net';
import path from 'node:path';
import { json } from 'node:stream/consumers';
import knex from 'knex';
import type { TestProject } from 'vitest/node';
import { databaseAddress } from '@/store/database-address';
import { ensureBuild } from '../../bin/setup/build.mjs';
import { endProcess } from '../../bin/setup/processes.mjs';
import { emptyDatabase } from './fresh-database';
import { type ProcessName, startMachine } from './machine';
import type { MachineWish, SharedMachine } from './machines';

const PROCESSES: readonly ProcessName[] = ['stand-ins', 'worker', 'web'];

/**
 * One machine with database, stand-ins, worker and pages, which is as new whenever a file of tests asks for that:
 * only what differs, or cannot forget, is started again.
 */
async function renewableMachine(): Promise<{ shared: SharedMachine; end(): Promise<void> }> {
  const machine = await startMachine([]);
  const connection = databaseAddress(undefined, Number(machine.settings.KETTLE_DB_PORT));
  const database = knex({ client: 'mysql2', connection, pool: { min: 0, max: 1 } });
  const running = new Map<ProcessName, { child: ChildProcess; settings: string }>();

  const end = async (name: ProcessName, signal?: NodeJS.Signals) => {
    await endProcess(running.get(name)?.child, signal);
    running.delete(name);
  };
  const start = async (name: ProcessName, settings: Record<string, string> = {}) => {
    await end(name);
    running.set(name, { child: machine.start(name, settings), settings: JSON.stringify(settings) });
    if (name !== 'worker') await machine.untilListens(name);
  };
  const renew = async (wish: MachineWish) => {
    const { settings = {} } = wish;
    const web = running.get('web');
    const isAlive = web?.child.exitCode === null && web.child.signalCode === null;
    const isSame = isAlive && web?.settings === JSON.stringify(settings.web ?? {});
    await Promise.all(PROCESSES.filter((name) => name !== 'web' || !isSame).map((name) => end(name)));
    await emptyDatabase(database);
    rmSync(path.join(String(machine.settings.KETTLE_HOME), 'stand-ins'), { recursive: true, force: true });
    const wanted = PROCESSES.filter((name) => !wish.without?.includes(name) && !running.has(name));
    await Promise.all(wanted.map((name) => start(name, settings[name])));
  };

  /** What a file of tests asks for, each with what it needs to know. */
  const acts: Record<string, (asked: Asked) => Promise<void>> = {
    '/renew': ({ wish = {} }) => renew(wish),
    '/start': ({ name, settings }) => start(name, settings),
    '/end': ({ name, signal }) => end(name, signal),
    '/kill-database': () => machine.killDatabase(),
  };
  const server = http.createServer(async (request, answer) => {
    try {
      await acts[request.url ?? '']?.((await json(request)) as Asked);
      answer.end('{}');
    } catch (error) {
      answer.writeHead(500).end(String(error));
    }
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const { port } = server.address() as AddressInfo;
  return {
    shared: { settings: machine.settings, control: `http://127.0.0.1:${port}` },
    async end() {
      server.close();
      await database.destroy();
      await Promise.all(PROCESSES.map((name) => end(name)));
      await machine.end();
    },
  };
}

interface Asked {
  wish?: MachineWish;
  name: ProcessName;
  settings?: Record<string, string>;
  signal?: NodeJS.Signals;
}

/** A renewable machine for each process of end-to-end tests. */
export default async function setup(project: TestProject) {
  await ensureBuild(path.resolve('.'));
  const machines: Awaited<ReturnType<typeof renewableMachine>>[] = [];
  for (let count = 0; count < project.config.maxWorkers; count += 1) machines.push(await renewableMachine());
  project.provide(
    'machines',
    machines.map(({ shared }) => shared),
  );
  return () => Promise.all(machines.map((machine) => machine.end()));
}
