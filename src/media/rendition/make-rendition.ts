import { mkdtemp, rename, rm, stat, statfs } from 'node:fs/promises';
import path from 'node:path';
import { createInterface } from 'node:readline';
import type { Readable } from 'node:stream';
import type { CutFacts } from '@/core/delivery';
import { lengthOfRecipe, type PictureCodec, type Recipe } from '@/core/renditions';
import { toNumber } from '@/core/time';
import { readFacts } from '../facts';
import { ProgramError, type RunOptions, runProgram, TooLong } from '../program';
import { type Run, renditionArguments } from './arguments';
import type { HardwareEncoder } from './hardware';
import { keepSoundOutside } from './kept-sound';
import { filtersForLoudness } from './loudness';
import { soundAround } from './sound-around';
import { writeSphere } from './sphere';

/** A run that says nothing new for so long hangs. */
const HANGS_MILLISECONDS = 3 * 60 * 1000;
const LONGEST_MILLISECONDS = 7 * 24 * 3600 * 1000;
/** An encoder keeps many large frames for each core that it has. */
const MOST_MEMORY_BYTES = 32 * 1024 ** 3;
/** With less than this free, a disk is full. */
const FULL_BYTES = 64 * 1024;
/** Tries to come below a size; each aims lower by what the one before was too much. */
const MOST_TRIES = 3;

/** How far a rendition is: the part that is done, from 0 to 1. */
export interface Making {
  onProgress?: (fraction: number) => void;
  signal?: AbortSignal;
  /** Graphics hardware that works here, by codec. */
  hardware?: ReadonlyMap<PictureCodec, HardwareEncoder>;
  /** Given a way to hold the program and let it go on, as it starts. */
  onStart?: RunOptions['onStart'];
  /** Paths of the sounds that take over parts of the cut's own, by their ids. */
  sounds?: ReadonlyMap<string, string>;
}

/** What a file is that was made, and by how many milliseconds its sound is another around the parts that were to be. */
export type MadeFile = CutFacts & { soundAround: number | undefined };

/**
 * Makes the file of a recipe. It appears at `to` whole or not at all.
 * @param from path of the cut
 * @param to path of the file to be; what is made before stands beside it
 * @returns what the file is
 * @throws ProgramError with what the encoder said; TooLong where it hangs; the signal's reason where it aborts
 */
export async function makeRendition(
  from: string,
  facts: CutFacts,
  recipe: Recipe,
  to: string,
  making: Making = {},
): Promise<MadeFile> {
  const folder = await mkdtemp(path.join(path.dirname(to), 'making-'));
  const half = path.join(folder, `file.${recipe.container}`);
  try {
    const soundFilters = await filtersOf(from, facts, recipe, making);
    let tried = recipe;
    for (let left = MOST_TRIES; ; left -= 1) {
      await encode({ facts, recipe: tried, from, to: half, soundFilters, sounds: making.sounds }, folder, making);
      const { size } = await stat(half);
      const lower = left > 1 ? lowered(tried, size) : undefined;
      if (!lower) break;
      tried = lower;
    }
    const options = {
      ...{ signal: making.signal, niceness: 10, milliseconds: LONGEST_MILLISECONDS, onStart: making.onStart },
    };
    await keepSoundOutside(half, { cut: from, facts, recipe, sounds: making.sounds }, folder, options);
    const around = await aroundParts(from, half, facts, recipe, options);
    if (recipe.sphere) await addSphere(half, recipe.container, making);
    const made = await readFacts(half, (await stat(half)).size, making.signal).catch(async (error: unknown) => {
      // ffmpeg takes a disk that becomes full with the last bytes of a small file for no error.
      const { bavail, bsize } = await statfs(folder);
      if (bavail * bsize < FULL_BYTES) throw new ProgramError('ffmpeg', 'No space left on device');
      throw error;
    });
    expectLength(made, recipe, facts);
    await rename(half, to);
    return { ...made, soundAround: around };
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

/** Where only parts of the sound are to be other than in the cut: how far around them it is. */
async function aroundParts(
  from: string,
  made: string,
  facts: CutFacts,
  recipe: Recipe,
  options: RunOptions,
): Promise<number | undefined> {
  const { silence = [], swaps = [], without = [] } = recipe;
  const spans = [...silence, ...swaps];
  // What begins later or has parts left out has its sound at other times.
  const isInItsTime = !recipe.from && !recipe.to && without.length === 0;
  if (!isInItsTime || spans.length === 0 || !facts.audio || recipe.sound === 'none') return undefined;
  return soundAround(from, made, spans, options).catch((error: unknown) => {
    // The file is whole without it being said.
    if (error instanceof ProgramError) return undefined;
    throw error;
  });
}

async function filtersOf(from: string, facts: CutFacts, recipe: Recipe, { signal, sounds }: Making): Promise<string[]> {
  if (typeof recipe.sound !== 'object' || recipe.sound.loudness === undefined) return [];
  const options = { signal, niceness: 10, milliseconds: LONGEST_MILLISECONDS, sounds };
  return (await filtersForLoudness(from, facts, recipe, recipe.sound.loudness, options)).filters;
}

/** The same recipe with fewer bits, where the file has become larger than it may be. */
function lowered(recipe: Recipe, size: number): Recipe | undefined {
  const { picture } = recipe;
  if (picture === 'copy' || picture.control.way !== 'variable') return undefined;
  const { within, kilobits } = picture.control;
  if (within === undefined || size <= within) return undefined;
  const control = { ...picture.control, kilobits: Math.max(1, Math.floor(kilobits * (within / size) * 0.97)) };
  return { ...recipe, picture: { ...picture, control } };
}

/** What of the hardware here encodes a picture. It aims at a rate in one pass, and knows no quality that we could count on. */
function hardwareFor({ picture }: Recipe, { hardware }: Making): HardwareEncoder | undefined {
  if (picture === 'copy' || !picture.hardware || picture.control.way !== 'variable') return undefined;
  return hardware?.get(picture.codec);
}

async function encode(run: Run, folder: string, making: Making): Promise<void> {
  const { picture } = run.recipe;
  const hardware = hardwareFor(run.recipe, making);
  if (hardware) {
    try {
      return await runFfmpeg({ ...run, hardware }, making, (fraction) => making.onProgress?.(fraction));
    } catch (error) {
      // Other sizes and formats than that of the trial may be too much for it; a program takes them all.
      if (!(error instanceof ProgramError)) throw error;
    }
  }
  const twice = picture !== 'copy' && picture.control.way === 'variable' && picture.control.passes === 2;
  if (!twice) return await runFfmpeg(run, making, (fraction) => making.onProgress?.(fraction));
  const log = path.join(folder, 'passes');
  await runFfmpeg({ ...run, pass: { number: 1, log } }, making, (fraction) => making.onProgress?.(fraction / 2));
  await runFfmpeg({ ...run, pass: { number: 2, log } }, making, (fraction) => making.onProgress?.(0.5 + fraction / 2));
}

/** Runs ffmpeg, tells how far it is, and ends it where it hangs. A program that is held does not hang. */
async function runFfmpeg(run: Run, { signal, onStart }: Making, tell: (fraction: number) => void): Promise<void> {
  const seconds = Math.max(0.001, toNumber(lengthOfRecipe(run.recipe, run.facts)));
  const hangs = new AbortController();
  let [last, held] = [Date.now(), false];
  const watch = setInterval(() => {
    if (held) last = Date.now();
    if (Date.now() - last > HANGS_MILLISECONDS) hangs.abort(new TooLong('ffmpeg has not got on for three minutes'));
  }, 1000);
  const both = signal ? AbortSignal.any([signal, hangs.signal]) : hangs.signal;
  const options: RunOptions = {
    signal: both,
    milliseconds: LONGEST_MILLISECONDS,
    niceness: 10,
    memory: MOST_MEMORY_BYTES,
    onStart: (program) =>
      onStart?.({
        hold: () => {
          held = true;
          program.hold();
        },
        goOn: () => {
          held = false;
          program.goOn();
        },
      }),
  };
  try {
    await runProgram('ffmpeg', renditionArguments(run), options, (out) =>
      eachProgress(out, (at) => {
        last = Date.now();
        tell(Math.min(1, at / seconds));
      }),
    );
  } finally {
    clearInterval(watch);
  }
}

/** Hears of each report how many seconds are written (ffmpeg, `-progress`). */
async function eachProgress(out: Readable, hear: (seconds: number) => void): Promise<void> {
  for await (const line of createInterface({ input: out })) {
    const microseconds = /^out_time_us=(\d+)$/.exec(line)?.[1];
    if (microseconds !== undefined) hear(Number(microseconds) / 1e6);
  }
}

/** Adds the box of a sphere where the index is last, then puts the index first again. */
async function addSphere(file: string, container: Recipe['container'], { signal }: Making): Promise<void> {
  if (container !== 'mp4' && container !== 'mov') return;
  const [last, first] = [`${file}.last.${container}`, `${file}.first.${container}`];
  const copy = (from: string, to: string, flags: string[]) =>
    runProgram(
      'ffmpeg',
      ['-v', 'error', '-nostdin', '-y', '-i', from, '-map', '0', '-c', 'copy', '-strict', 'unofficial', ...flags, to],
      {
        signal,
        milliseconds: LONGEST_MILLISECONDS,
      },
    );
  await copy(file, last, []);
  await writeSphere(last);
  await copy(last, first, ['-movflags', '+faststart']);
  await rename(first, file);
}

/** A file that is shorter than it should be was not made whole, whatever the program said. */
function expectLength(made: CutFacts, recipe: Recipe, facts: CutFacts): void {
  const [is, meant] = [toNumber(made.duration), toNumber(lengthOfRecipe(recipe, facts))];
  if (is >= meant - Math.max(0.5, meant * 0.002)) return;
  throw new ProgramError('ffmpeg', `the file came out with ${is.toFixed(1)} s of ${meant.toFixed(1)} s`);
}
