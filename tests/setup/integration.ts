import type { TestProject } from 'vitest/node';
import { allowPlentyAt } from './control';
import { type Machine, startMachine } from './machine';
import type {} from './machines';

const SITES = 4;

/**
 * A database and the stand-ins for each process of integration tests, which wait more than they compute, so that several go
 * at once; workers are started by the tests that need them.
 */
export default async function setup(project: TestProject) {
  const machines: Machine[] = [];
  for (let count = 0; count < project.config.maxWorkers; count += 1) {
    const machine = await startMachine(['stand-ins']);
    machines.push(machine);
    const first = Number(machine.env.KETTLE_SITES_PORT);
    // The spans of a site whose hours are so short end before its answer.
    for (let site = 0; site < SITES; site += 1) await allowPlentyAt(`http://127.0.0.1:${first + site}`);
  }
  project.provide(
    'machines',
    machines.map(({ settings }) => ({ settings })),
  );
  return () => Promise.all(machines.map((machine) => machine.end()));
}
