import { spawn } from 'node:child_process';

/** Ends with what `times` tells of a shell's children: all that they started, and waited for, is in it (POSIX.1-2017, times). */
const COUNTED = '"$@" 3>&-; status=$?; times >&3; exit $status';

/** Seconds out of "1m2.5s". */
const secondsOf = (text) => {
  const [, minutes, seconds] = /(\d+)m([\d.]+)s/.exec(text) ?? [];
  return Number(minutes ?? 0) * 60 + Number(seconds ?? 0);
};

/**
 * Runs a command to its end.
 * @param command program and arguments
 * @param options.niceness by how much it stands back behind others
 * @returns how it ended, what it printed (`out`) and all that it said, in its order, and the processor seconds that it and all
 *   that it started took
 */
export async function run(command, { cwd, niceness = 0, env = process.env } = {}) {
  const nice = niceness > 0 ? ['nice', '-n', String(niceness)] : [];
  const child = spawn('sh', ['-c', COUNTED, 'sh', ...nice, ...command], {
    cwd,
    env,
    stdio: ['ignore', 'pipe', 'pipe', 'pipe'],
  });
  const [out, said] = [[], []];
  child.stdout.on('data', (data) => out.push(data));
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (data) => said.push(data));
  let times = '';
  child.stdio[3].on('data', (data) => {
    times += data;
  });
  const status = await new Promise((resolve) => {
    child.once('error', () => resolve(1));
    child.once('close', resolve);
  });
  const seconds = times.split(/\s+/).map(secondsOf);
  const text = (parts) => Buffer.concat(parts).toString();
  return { status, out: text(out), said: text(said), seconds: seconds.reduce((sum, each) => sum + each, 0) };
}
