import { rmSync } from 'node:fs';
import path from 'node:path';
import { emptyDatabase } from '../tests/setup/fresh-database';
import { type Machine, type ProcessName, startMachine } from '../tests/setup/machine';
import { SHORT } from './say';

let shared: Promise<Machine> | undefined;

/**
 * A machine for one measurement, with these processes. In the short form all measurements have the same, one after the other,
 * as new each time.
 */
export async function machineWith(names: ProcessName[]): Promise<Machine> {
  if (!SHORT) return startMachine(names);
  const isNew = !shared;
  shared ??= startMachine([]);
  const machine = await shared;
  if (!isNew) {
    const { database } = await import('@/store/database');
    await emptyDatabase(database());
    rmSync(path.join(String(machine.env.KETTLE_HOME), 'stand-ins'), { recursive: true, force: true });
  }
  for (const name of names) machine.start(name);
  await Promise.all(names.map((name) => name !== 'worker' && machine.untilListens(name)));
  return machine;
}

/** Ends the machine of measurements, however they ended: no process of one outlives it. */
export async function endMachine(machine: Machine | undefined): Promise<void> {
  const { closeDatabase } = await import('@/store/database');
  await closeDatabase().catch(() => undefined);
  await (machine ?? (await shared))?.end();
}

/**
 * Measures on a machine, and ends it however that ends.
 * @param folder what it was measured in, which goes too
 * @throws in the short form what the work throws: others are measured after it
 */
export async function measureOn(
  machine: Machine,
  folder: string | undefined,
  work: () => Promise<void>,
): Promise<void> {
  const forget = () => folder && rmSync(folder, { recursive: true, force: true });
  if (SHORT) {
    try {
      await work();
    } finally {
      await machine.endProcesses();
      forget();
    }
    return;
  }
  const end = async (code: number) => {
    await endMachine(machine);
    forget();
    process.exit(code);
  };
  for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, () => void end(1));
  for (const trouble of ['uncaughtException', 'unhandledRejection'] as const) {
    process.once(trouble, (error) => {
      console.error(error);
      void end(1);
    });
  }
  try {
    await work();
  } catch (error) {
    console.error(error);
    await end(1);
  }
  await end(Number(process.exitCode ?? 0));
}
