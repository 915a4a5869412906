import { describe, expect, it } from 'vitest';
import { MachineError, ProgramError, runProgram } from './program';

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
});
