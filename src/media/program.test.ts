import { spawn } from 'node:child_process';
import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { MachineError, ProgramError, runProgram, TooLong } from './program';

describe('a program that fails', () => {
  it('for the file’s sake says why', async () => {
    await expect(runProgram('ffprobe', ['-v', 'error', '/nowhere.mp4'])).rejects.toBeInstanceOf(ProgramError);
  });

  it('for the file’s sake, too, where it says more than can be held', async () => {
    await expect(runProgram('yes', [])).rejects.toBeInstanceOf(ProgramError);
  });

  it('for the machine’s sake where it is missing or is ended from outside', async () => {
    await expect(runProgram('no-such-program', [])).rejects.toBeInstanceOf(MachineError);
    await expect(runProgram('sh', ['-c', 'kill -9 $$'])).rejects.toBeInstanceOf(MachineError);
  });

  it('for nobody’s sake where it takes too long', async () => {
    await expect(runProgram('sleep', ['9'], { milliseconds: 100 })).rejects.toBeInstanceOf(TooLong);
  });

  it('because it was taken back says why it was', async () => {
    const ending = new AbortController();
    const running = runProgram('sleep', ['9'], { signal: ending.signal });
    ending.abort(new Error('not ours any more'));
    await expect(running).rejects.toThrow('not ours any more');
  });
});

/** Whether a process of this machine runs that was called like this (proc(5), `/proc/pid/cmdline`). */
function isRunning(command: string): boolean {
  return readdirSync('/proc').some((name) => {
    try {
      return /^\d+$/.test(name) && readFileSync(`/proc/${name}/cmdline`, 'utf8') === command;
    } catch {
      return false;
    }
  });
}

describe('a program that runs', () => {
  it('ends with the process that started it, however that ends', async () => {
    const starts = `import { runProgram } from './src/media/program.ts'; void runProgram('sleep', ['77.25']);`;
    const parent = spawn(process.execPath, ['--import', 'tsx', '--input-type=module', '-e', starts]);
    await expect.poll(() => isRunning('sleep\x0077.25\0'), { timeout: 20_000 }).toBe(true);
    parent.kill('SIGKILL');
    await expect.poll(() => isRunning('sleep\x0077.25\0'), { timeout: 5000 }).toBe(false);
  }, 30_000);
});
