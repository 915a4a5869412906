import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, openSync, renameSync, statSync } from 'node:fs';
import path from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { programFile } from './programs.mjs';

const NEXT = 'node_modules/next/dist/bin/next';

/** The three processes, each with the arguments that Node.js gets. */
export const PROCESSES = {
  'stand-ins': (root) => [programFile(root, 'stand-ins')],
  worker: (root) => [programFile(root, 'worker')],
  web: (_root, env) => [NEXT, 'start', '-H', '127.0.0.1', '-p', env.KETTLE_PORT],
};

/** The environment that every process gets, each setting with its default. */
export function processEnvironment(root, given = process.env) {
  return {
    ...given,
    KETTLE_PORT: given.KETTLE_PORT ?? '7300',
    KETTLE_DB_PORT: given.KETTLE_DB_PORT ?? '7306',
    KETTLE_SITES_PORT: given.KETTLE_SITES_PORT ?? '7310',
    KETTLE_HOME: path.resolve(root, given.KETTLE_HOME ?? '.kettle'),
    NODE_ENV: 'production',
    NEXT_TELEMETRY_DISABLED: '1',
  };
}

const LARGEST_LOG_BYTES = 10 * 1024 * 1024;

/** Puts a log that has grown large aside, in the place of the one put aside before, so that both never grow for ever. */
export function freshLog(file) {
  if (existsSync(file) && statSync(file).size > LARGEST_LOG_BYTES) renameSync(file, `${file}.1`);
  return file;
}

/** Starts one of the processes; what it says goes to logs/NAME.log below its home. */
export function startProcess(root, name, env) {
  const logs = path.join(env.KETTLE_HOME, 'logs');
  mkdirSync(logs, { recursive: true });
  const log = openSync(freshLog(path.join(logs, `${name}.log`)), 'a');
  return spawn(process.execPath, PROCESSES[name](root, env), {
    cwd: root,
    env: { ...env, KETTLE_PROCESS: name },
    stdio: ['ignore', log, log],
    // Of a process group of its own: Ctrl-C reaches the start command, which ends the processes in their order.
    detached: true,
  });
}

/** Waits until an address answers. @throws where it does not within a minute */
export async function untilAnswers(address) {
  for (let tries = 0; tries < 300; tries += 1) {
    const answer = await fetch(address).catch(() => undefined);
    if (answer) return;
    await pause(200);
  }
  throw new Error(`${address} does not answer; the logs say why.`);
}

/** Ends a child and waits until it is gone. */
export async function endProcess(child, signal = 'SIGTERM') {
  if (!child || child.exitCode !== null || child.signalCode !== null) return;
  const gone = new Promise((resolve) => child.once('exit', resolve));
  child.kill(signal);
  const forced = setTimeout(() => child.kill('SIGKILL'), 8000);
  await gone;
  clearTimeout(forced);
}
