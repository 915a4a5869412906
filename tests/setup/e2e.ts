import path from 'node:path';
import { ensureBuild } from '../../bin/setup/build.mjs';
import { startMachine } from './machine';

/** Everything that npm start runs, without the demo. */
export default async function setup() {
  ensureBuild(path.resolve('.'));
  const machine = await startMachine(['stand-ins', 'worker', 'web']);
  return machine.end;
}
