import type { Readable } from 'node:stream';
import { execa, type Result } from 'execa';

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

/** The machine's own fault and never the file's: the program is missing, or was ended from outside. */
export class MachineError extends Error {
  override name = 'MachineError';
}

/** A program took longer than it may. Whose fault that is, nobody can tell; another try may go better. */
export class TooLong extends Error {
  override name = 'TooLong';
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
/** Address space that one program may take: more than any real cut needs, less than would stop the machine. */
const MOST_MEMORY_BYTES = 6 * 1024 ** 3;
/** How a shell and its kin end where a program is not there or cannot be run (POSIX.1-2017, XCU 2.8.2). */
const NOT_RUN = [126, 127];

/** How a program is run. */
export interface RunOptions {
  /** Ends it. */
  signal?: AbortSignal;
  /** After so long it is ended. */
  milliseconds?: number;
  /** From 0 to 19: how far it stands back behind others. */
  niceness?: number;
  /** Address space that it may take, in bytes. */
  memory?: number;
  /** Given a way to hold the program and let it go on, as it starts. */
  onStart?: (program: HeldProgram) => void;
}

/** A program that runs, as it can be held in its place. */
export interface HeldProgram {
  hold(): void;
  goOn(): void;
}

/**
 * What goes before a program so that it ends with us, however we end, stands back behind what people wait for, and takes no
 * more memory than it may (setpriv(1), nice(1) and prlimit(1) belong to every Debian).
 */
const boundTo = (niceness: number, memory: number) => [
  ...['--pdeathsig', 'KILL', 'nice', '-n', String(niceness), 'prlimit', `--as=${memory}`],
];

const MOST_SAID = 8 * 1024 * 1024;

/**
 * Runs ffmpeg or ffprobe and gives what it printed.
 * @param hear reads what it prints while it runs: from its standard output and from its file descriptors 3 and 4
 * @throws ProgramError, TooLong or MachineError; the signal's reason where it aborts
 */
export async function runProgram(
  program: string,
  args: readonly string[],
  { signal, milliseconds = LONGEST_MILLISECONDS, niceness = 5, memory = MOST_MEMORY_BYTES, onStart }: RunOptions = {},
  hear?: (out: Readable, third: Readable, fourth: Readable) => Promise<unknown>,
): Promise<string> {
  const running = execa('setpriv', [...boundTo(niceness, memory), program, ...args], {
    reject: false,
    timeout: milliseconds,
    cancelSignal: signal,
    forceKillAfterDelay: 2000,
    maxBuffer: MOST_SAID,
    stdio: ['ignore', 'pipe', 'pipe', 'pipe', 'pipe'],
    buffer: { stdout: hear === undefined, stderr: true, fd3: false, fd4: false },
  });
  onStart?.({ hold: () => running.kill('SIGSTOP'), goOn: () => running.kill('SIGCONT') });
  const heard = hear?.(running.stdout, running.stdio[3], running.stdio[4]);
  heard?.catch(() => undefined);
  const ended = await running;
  if (!ended.failed) {
    await heard;
    return typeof ended.stdout === 'string' ? ended.stdout : '';
  }
  signal?.throwIfAborted();
  throw errorOf(program, ended);
}

function errorOf(
  program: string,
  ended: Pick<Result, 'code' | 'exitCode' | 'isMaxBuffer' | 'timedOut' | 'signal' | 'stderr'>,
) {
  if (ended.isMaxBuffer) return new ProgramError(program, 'it says too much');
  if (ended.timedOut) return new TooLong(`${program} took too long`);
  if (ended.code !== undefined || NOT_RUN.includes(ended.exitCode ?? 0)) {
    return new MachineError(`${program} cannot be started`);
  }
  if (ended.signal !== undefined) return new MachineError(`${program} was ended (${ended.signal})`);
  const said = String(ended.stderr ?? '')
    .trim()
    .split('\n')
    .slice(-3)
    .join(' ');
  return new ProgramError(program, said || `it ended with ${ended.exitCode}`);
}
