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

/** The machine's own fault and never the file's: the program is missing, was ended from outside, or took too long. */
export class MachineError extends Error {
  override name = 'MachineError';
}

/** Formats in which cuts and captures come, by ffmpeg's names of their readers. Lists of other files are none of them. */
const FORMATS = [
  ...[
    'mov',
    'mp4',
    'm4a',
    '3gp',
    '3g2',
    'mj2',
    'matroska',
    'webm',
    'avi',
    'mpegts',
    'mpeg',
    'mxf',
    'asf',
    'flv',
    'ogg',
  ],
  ...['wav', 'mp3', 'aac', 'flac', 'gif', 'image2', 'mjpeg', 'png_pipe', 'jpeg_pipe'],
];

/**
 * What goes before each file that came from outside: it is read as one file of a known format, and cannot have ffmpeg read
 * others, as a play list would that is named like a video (ffmpeg-protocols, `protocol_whitelist`; ffmpeg-formats,
 * `format_whitelist`).
 */
export const FROM_OUTSIDE = ['-protocol_whitelist', 'file', '-format_whitelist', FORMATS.join(',')];

const LONGEST_MILLISECONDS = 10 * 60 * 1000;

/** Runs ffmpeg or ffprobe and gives what it printed. @throws ProgramError, or MachineError where it is not the file's fault */
export function runProgram(program: string, args: string[]): Promise<string> {
  return new Promise((resolve, reject) => {
    const limits = { maxBuffer: 32 * 1024 * 1024, timeout: LONGEST_MILLISECONDS };
    execFile(program, args, limits, (error, out, said) => {
      if (!error) return resolve(out);
      const code: unknown = error.code;
      if (code === 'ERR_CHILD_PROCESS_STDIO_MAXBUFFER') return reject(new ProgramError(program, 'it says too much'));
      if (typeof code === 'string') return reject(new MachineError(`${program} cannot be started: ${code}`));
      if (error.killed || error.signal) return reject(new MachineError(`${program} was ended (${error.signal})`));
      reject(new ProgramError(program, said.trim().split('\n').slice(-3).join(' ') || error.message));
    });
  });
}
