import { type ChildProcess, spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { databaseSocket } from '@/store/database-socket.mjs';
import { ensureBuild } from '../../bin/setup/build.mjs';
import { endProcess } from '../../bin/setup/processes.mjs';
import { freePorts } from '../setup/machine';

let started: ChildProcess;
let said = '';
let address: string;
let databasePort: number;
const home = mkdtempSync(path.join(os.tmpdir(), 'kettle-start-'));

beforeAll(async () => {
  await ensureBuild(path.resolve('.'));
  const [port, sites] = [await freePorts(1), await freePorts(6)];
  databasePort = await freePorts(1);
  address = `http://127.0.0.1:${port}`;
  const ports = { KETTLE_PORT: port, KETTLE_DB_PORT: databasePort, KETTLE_SITES_PORT: sites };
  for (const [name, value] of Object.entries(ports)) process.env[name] = String(value);
  const env = { ...process.env, KETTLE_HOME: home, KETTLE_DEMO: 'off' };
  started = spawn(process.execPath, ['bin/start.mjs'], { env, stdio: ['ignore', 'ignore', 'pipe'] });
  started.stderr?.on('data', (chunk: Buffer) => {
    said += chunk;
  });
  while (!said.includes('Ctrl-C ends it.')) await pause(200);
}, 120_000);

afterAll(async () => {
  await endProcess(started);
  for (const folder of [home, path.dirname(databaseSocket(databasePort))])
    rmSync(folder, { recursive: true, force: true });
});

const health = async () => (await fetch(`${address}/api/health`).catch(() => undefined))?.status;
const pidOfDatabase = () => Number(readFileSync(path.join(home, 'database', 'pid'), 'utf8'));

describe('npm start', () => {
  it('starts a database that is killed again, and everything is well', async () => {
    await expect.poll(health, { timeout: 20_000 }).toBe(200);
    const before = pidOfDatabase();
    process.kill(before, 'SIGKILL');
    await expect.poll(() => said, { timeout: 10_000 }).toContain('The database ended');
    await expect.poll(health, { timeout: 30_000 }).toBe(200);
    expect(pidOfDatabase()).not.toBe(before);
  }, 60_000);

  it('ends with everything that it started', async () => {
    const database = pidOfDatabase();
    await endProcess(started);
    expect(await health()).toBeUndefined();
    expect(() => process.kill(database, 0)).toThrow();
  }, 30_000);
});
