import type { ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { SITE_PROFILES } from '@/sites/profiles';
import { database } from '@/store/database';
import { addressOf, setFaultsAt, struckAt } from '../../tests/setup/desk';
import type { Machine } from '../../tests/setup/machine';
import type { Chance } from './chance';
import type { Uploads } from './uploads';

/** The processes that may die at any moment. */
export interface Processes {
  workers: ChildProcess[];
  web: ChildProcess;
  sites: ChildProcess;
}

/** A kind of fault, and how often it comes in comparison with the others. */
interface FaultKind {
  name: string;
  weight: number;
  strike(): Promise<unknown>;
}

const root = path.resolve('bench/faults');
/** Settings of a process whose disk can be full. @param more modules to load before it begins */
export const fullDiskSettings = (home: string, ...more: string[]) => ({
  NODE_OPTIONS: ['full-disk.mjs', ...more].map((module) => `--import ${path.join(root, module)}`).join(' '),
  KETTLE_FULL_DISK: path.join(home, 'full-disk'),
});

async function kill(child: ChildProcess): Promise<void> {
  if (child.exitCode !== null || child.signalCode !== null) return;
  const gone = once(child, 'exit');
  child.kill('SIGKILL');
  await gone;
}

/** @throws where the site did not take it */
async function control(site: string, what: string, json?: unknown): Promise<void> {
  const answer = await fetch(`${addressOf(site)}/control/${what}`, {
    method: 'POST',
    ...(json ? { headers: { 'content-type': 'application/json' }, body: JSON.stringify(json) } : {}),
  });
  if (!answer.ok) throw new Error(await answer.text());
}

/** How many of the faults that sites were told of have struck, by kind; those that a kill of the sites has cost are not. */
export async function struckAtSites(): Promise<Record<string, number>> {
  const all: Record<string, number> = {};
  for (const site of Object.keys(SITE_PROFILES)) {
    for (const [kind, times] of Object.entries(await struckAt(site))) all[kind] = (all[kind] ?? 0) + times;
  }
  return all;
}

/** Two transactions that each hold what the other wants, with those of Kettle Drop in between. */
async function deadlock(chance: Chance): Promise<void> {
  const rows: { id: string }[] = await database()('drops').select('id').limit(200);
  if (rows.length < 2) return;
  const [one, two] = [chance.of(rows).id, chance.of(rows).id];
  const hold = async (first: string, second: string) => {
    await database()
      .transaction(async (trx) => {
        // Much that is written makes it the other whom the database ends.
        for (let n = 0; n < 40; n += 1) await trx('feed').insert({ topic: 'video', subject: first, at: new Date() });
        await trx('dropEvents').where({ dropId: first }).forUpdate().select('id');
        await pause(150);
        await trx('drops').where({ id: second }).forUpdate().select('id');
      })
      .catch(() => undefined);
  };
  await Promise.all([hold(one, two), hold(two, one)]);
}

/**
 * Every kind of fault that there is.
 * @param stalls whether a line may stand still, which takes a minute each time
 */
export function faultKinds(
  machine: Machine,
  processes: Processes,
  sites: readonly string[],
  uploads: Uploads,
  chance: Chance,
  stalls: boolean,
): FaultKind[] {
  const at = () => chance.of(sites);
  const home = machine.env.KETTLE_HOME ?? '';
  const flag = path.join(home, 'full-disk');
  const atSite = (fault: () => Record<string, unknown>) => () => control(at(), 'faults', fault());
  const anotherWorker = async (...modules: string[]) => {
    const index = chance.between(0, processes.workers.length - 1);
    const [worker] = processes.workers.slice(index);
    if (worker) await kill(worker);
    processes.workers[index] = machine.start('worker', fullDiskSettings(home, ...modules));
  };
  return [
    { name: 'cut', weight: 10, strike: atSite(() => ({ kind: 'cut', bytes: chance.between(0, 900_000), times: 1 })) },
    { name: '429', weight: 6, strike: atSite(() => ({ kind: 'answer', status: 429, retryAfter: 1, times: 2 })) },
    { name: '503', weight: 6, strike: atSite(() => ({ kind: 'answer', status: 503, retryAfter: 1, times: 2 })) },
    { name: '500', weight: 3, strike: atSite(() => ({ kind: 'answer', status: 500, times: 1 })) },
    {
      name: 'stall',
      weight: stalls ? 1 : 0,
      strike: atSite(() => ({ kind: 'stall', bytes: chance.between(0, 500_000), times: 1 })),
    },
    {
      name: 'slow line',
      weight: 4,
      async strike() {
        const site = at();
        await control(site, 'faults', { kind: 'line', bytes: 300_000 });
        await pause(1500);
        await setFaultsAt(site);
      },
    },
    {
      name: 'processing fails',
      weight: 3,
      strike: atSite(() => ({ kind: 'fail processing', reason: 'broken', times: 1 })),
    },
    { name: 'slow processing', weight: 2, strike: atSite(() => ({ kind: 'slow processing', seconds: 2, times: 1 })) },
    { name: 'tokens run out', weight: 5, strike: () => control(at(), 'expire-tokens') },
    { name: 'permission taken back', weight: 2, strike: () => control(at(), 'take-back') },
    { name: 'transfer cut', weight: 6, strike: async () => uploads.cut() },
    { name: 'worker killed', weight: 8, strike: () => anotherWorker() },
    { name: 'clock set forward', weight: 2, strike: () => anotherWorker('ahead.mjs') },
    {
      name: 'web killed',
      weight: 2,
      async strike() {
        await kill(processes.web);
        processes.web = machine.start('web', fullDiskSettings(home));
      },
    },
    {
      name: 'sites killed',
      weight: 2,
      async strike() {
        await kill(processes.sites);
        processes.sites = machine.start('stand-ins');
      },
    },
    { name: 'database killed', weight: 1, strike: () => machine.killDatabase() },
    {
      name: 'disk full',
      weight: 3,
      async strike() {
        writeFileSync(flag, '');
        await pause(1200);
        rmSync(flag, { force: true });
      },
    },
    { name: 'deadlock', weight: 5, strike: () => deadlock(chance) },
  ];
}

/** Chooses a kind by its weight. */
export function chooseKind(kinds: readonly FaultKind[], chance: Chance): FaultKind {
  let at = chance.next() * kinds.reduce((sum, { weight }) => sum + weight, 0);
  for (const kind of kinds) {
    at -= kind.weight;
    if (at < 0) return kind;
  }
  return chance.of(kinds);
}
