import { execFile } from 'node:child_process';

/** A program of ffmpeg's that did not do what it was asked; `said` is the end of what it wrote. */
export class ProgramError extends Error {
  override name = 'ProgramError';
  constructor(
    readonly program: string,
    readonly said: string,
  ) {
    super(`${program}: ${said}`);
  }
}

/** Runs ffmpeg or ffprobe and gives what it printed. @throws ProgramError */
export function runProgram(program: 'ffmpeg' | 'ffprobe', args: string[]): Promise<string> {
  return new Promise((resolve, reject) => {
    const limits = { maxBuffer: 32 * 1024 * 1024, timeout: 10 * 60 * 1000 };
    execFile(program, args, limits, (error, out, said) => {
      if (!error) return resolve(out);
      reject(new ProgramError(program, said.trim().split('\n').slice(-3).join(' ') || error.message));
    });
  });
}
