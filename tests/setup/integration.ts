import { startMachine } from './machine';

/** A database and the stand-ins for all integration tests; workers are started by the tests that need them. */
export default async function setup() {
  const machine = await startMachine(['stand-ins']);
  // Only now: it takes the machine's settings as it is loaded.
  const { allowAt } = await import('./desk');
  // In spans of a second, which is what can be told: the spans of a site whose hours are so short end before its answer.
  for (const site of ['lanternfold', 'fieldgate', 'pipwire', 'stallmarket']) await allowAt(site, 100_000, 1);
  return machine.end;
}
