import { appendFileSync, readdirSync, readFileSync } from 'node:fs';
import { afterAll, beforeAll, expect } from 'vitest';

/** Clock ticks of proc(5) in a second, on every Linux that Node.js runs on. */
const TICKS = 100;

/** Ticks that a process took with those of its children that it waited for, and its parent. */
function timesOf(pid: string): { ticks: number; parent: string } | undefined {
  try {
    const fields = readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ').at(-1)?.split(' ') ?? [];
    const ticks = fields.slice(11, 15).reduce((sum, each) => sum + Number(each), 0);
    return { ticks, parent: fields[1] ?? '' };
  } catch {
    // It has ended meanwhile.
    return undefined;
  }
}

/** Whether a process belongs to the machine of this one, and is none of the tests' own, which inherit its settings. */
function isOfMachine(pid: string, home: string): boolean {
  try {
    if (readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('vitest')) return false;
    return readFileSync(`/proc/${pid}/environ`, 'utf8').split('\0').includes(`KETTLE_HOME=${home}`);
  } catch {
    return false;
  }
}

/** What this process, all below it, and the processes of its machine have taken until now, by process. */
function spentNow(): Map<string, number> {
  const all = readdirSync('/proc').filter((name) => /^\d+$/.test(name));
  const times = new Map(all.flatMap((pid) => [[pid, timesOf(pid)] as const]));
  const home = process.env.KETTLE_HOME;
  const isOurs = (pid: string): boolean => {
    if (pid === String(process.pid)) return true;
    const parent = times.get(pid)?.parent;
    return (parent !== undefined && parent !== '0' && isOurs(parent)) || (home !== undefined && isOfMachine(pid, home));
  };
  return new Map(all.filter(isOurs).map((pid) => [pid, times.get(pid)?.ticks ?? 0]));
}

const notes = process.env.KETTLE_SPENT;
if (notes) {
  let before: Map<string, number>;
  beforeAll(() => {
    before = spentNow();
  });
  afterAll(() => {
    const ticks = [...spentNow()].reduce((sum, [pid, now]) => sum + now - (before.get(pid) ?? 0), 0);
    const { testPath: file } = expect.getState();
    appendFileSync(notes, `${JSON.stringify({ file, seconds: ticks / TICKS })}\n`);
  });
}
