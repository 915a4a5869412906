import { startMachine } from './machine';

/** A database and the stand-ins for all integration tests; workers are started by the tests that need them. */
export default async function setup() {
  const machine = await startMachine(['stand-ins']);
  return machine.end;
}
