import { type ChildProcess, spawn } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { BoardView } from '@/desk/views/views';
import { databaseSocket } from '@/store/database-socket.mjs';
import { endProcess } from '../../bin/setup/processes.mjs';
import { itsBrowser } from '../setup/browser';
import { PATIENCE } from '../setup/patience';
import { type HeldPorts, heldPorts } from '../setup/ports';
import { stepsInOrder } from '../setup/steps';

const browser = itsBrowser();
const home = mkdtempSync(path.join(os.tmpdir(), 'kettle-start-'));
const READY = 'Ctrl-C ends it.';
let started: ChildProcess;
let said = '';
let held: HeldPorts;
let address: string;
let titles: string[];

/** `npm start`, with nothing set but where things are, and that the demo's videos are drawn small. It has a process group of its own, as from a terminal. */
async function start(): Promise<void> {
  said = '';
  const [port, database, sites] = [held.first, held.first + 1, held.first + 2].map(String);
  const env: NodeJS.ProcessEnv = {
    ...process.env,
    KETTLE_PORT: port,
    KETTLE_DB_PORT: database,
    KETTLE_SITES_PORT: sites,
  };
  for (const name of Object.keys(env)) if (/^KETTLE_(?!PORT|DB_PORT|SITES_PORT)/.test(name)) delete env[name];
  started = spawn('npm', ['start'], {
    env: { ...env, KETTLE_HOME: home, KETTLE_DEMO: 'small' },
    stdio: ['ignore', 'ignore', 'pipe'],
    detached: true,
  });
  started.stderr?.on('data', (chunk: Buffer) => {
    said += chunk;
  });
  const until = Date.now() + 3 * PATIENCE;
  while (!said.includes(READY)) {
    if (started.exitCode !== null || Date.now() > until) throw new Error(said);
    await pause(100);
  }
}

/** Ctrl-C: a terminal tells every process of the group. */
async function interrupt(): Promise<void> {
  const gone = new Promise((resolve) => started.once('exit', resolve));
  process.kill(-(started.pid ?? 0), 'SIGINT');
  await gone;
}

/** Every process that works on this home, by what it runs. */
const itsProcesses = (): string[] =>
  readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name))
    .flatMap((pid) => {
      try {
        const isIts = readFileSync(`/proc/${pid}/environ`, 'utf8').includes(`KETTLE_HOME=${home}`);
        return isIts ? [readFileSync(`/proc/${pid}/cmdline`, 'utf8').replaceAll('\0', ' ')] : [];
      } catch {
        // It has ended meanwhile.
        return [];
      }
    })
    .filter((command) => command !== '');

stepsInOrder();
beforeAll(async () => {
  held = await heldPorts(8);
  address = `http://127.0.0.1:${held.first}`;
  await start();
});
afterAll(async () => {
  await endProcess(started);
  held.release();
  for (const folder of [home, path.dirname(databaseSocket(held.first + 1))])
    rmSync(folder, { recursive: true, force: true });
});

const health = async () => (await fetch(`${address}/api/health`).catch(() => undefined))?.status;
const pidOfDatabase = () => Number(readFileSync(path.join(home, 'database', 'pid'), 'utf8'));
const board = async () => (await (await fetch(`${address}/api/board`)).json()) as BoardView;
const states = async () => [...new Set((await board()).rows.flatMap(({ drops }) => drops.map(({ state }) => state)))];

describe('npm start, as the README has it', () => {
  it('prints one address, where the demo’s Board shows every state at first sight', async () => {
    expect(said.match(/http:\S+/g)).toEqual([address]);
    // One is turned away, one on its way, one waits, one is out, and one is not sent.
    await expect.poll(states).toEqual(expect.arrayContaining(['snag', 'landing', 'held', 'live', 'draft']));
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(address);
    for (const part of ['Needs you', 'Under way', 'Ready to open', 'Live', 'Not sent']) {
      await page
        .getByRole('group', { name: 'Which videos' })
        .getByRole('button', { name: new RegExp(`^${part} [1-9]`) })
        .waitFor();
    }
    await page.context().close();
  });

  it('starts what is killed again, and everything is well', async () => {
    const before = pidOfDatabase();
    process.kill(before, 'SIGKILL');
    await expect.poll(() => said).toContain('The database ended');
    await expect.poll(health).toBe(200);
    expect(pidOfDatabase()).not.toBe(before);
  });

  it('ends with everything that it started on Ctrl-C', async () => {
    titles = (await board()).rows.map(({ title }) => title).sort();
    expect(itsProcesses().length).toBeGreaterThanOrEqual(4);
    await interrupt();
    await expect.poll(itsProcesses).toEqual([]);
    expect(await health()).toBeUndefined();
  });

  it('starts again with all that was there, and makes nothing a second time', async () => {
    await start();
    expect(said).not.toMatch(/Making|Drawing|Building|Installing/);
    expect((await board()).rows.map(({ title }) => title).sort()).toEqual(titles);
    await interrupt();
    await expect.poll(itsProcesses).toEqual([]);
  });
});
