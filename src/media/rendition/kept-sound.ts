import { createWriteStream } from 'node:fs';
import { rename } from 'node:fs/promises';
import path from 'node:path';
import { createInterface } from 'node:readline';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { CutFacts, CutSpan } from '@/core/delivery';
import type { Recipe } from '@/core/renditions';
import { compare, type Fraction, fraction, minus, plus, toNumber, ZERO } from '@/core/time';
import { FROM_OUTSIDE, ProgramError, type RunOptions, runProgram } from '../program';
import { adtsFrames, type FrameWindow, NoAdts, soundFormatOf, windowOf } from './adts';
import { soundGraph } from './part-graphs';

/** Samples of a frame of AAC-LC (ISO/IEC 14496-3, 4.5.2.1). */
const FRAME = 1024;
/** So many frames before and after a span are new, too, so that the seam lies where old and new sound alike. */
const LEAD = 2;
/** So much farther a place is looked for at which the windows of old and new fit. */
const FARTHEST = 24;
/** ffmpeg's encoder gives out one frame before the first that it was given (AVCodecContext, initial_padding). */
const ENCODER_LEAD = 1;

/** What keeping the sound takes, besides what it is made with. */
export interface KeptSound {
  cut: string;
  facts: CutFacts;
  recipe: Recipe;
  sounds?: ReadonlyMap<string, string>;
}

/** Frames from the first up to and including the last that are not the cut's own. */
interface NewFrames {
  first: number;
  last: number;
}

/** Whether all that happens to the sound happens in spans of it, and it stays of the same kind. */
function isInSpansAlone({ facts, recipe }: KeptSound): boolean {
  const { container, picture, sound, from, to, without, silence = [], swaps = [] } = recipe;
  if (typeof sound !== 'object' || sound.loudness !== undefined || from || to || without?.length) return false;
  // A file that may not be larger than so much is made of what is known to fit.
  if (picture !== 'copy' && picture.control.way === 'variable' && picture.control.within !== undefined) return false;
  const inBoxes = [container, facts.container].every((name) => name === 'mp4' || name === 'mov');
  const same = sound.codec === 'aac' && facts.audio?.codec === 'aac' && facts.audio.sampleRate === sound.sampleRate;
  return inBoxes && same && silence.length + swaps.length > 0;
}

/**
 * Where parts of the sound are silent or other sound, puts the cut's own frames of AAC back in all other places of a file
 * that was made: what lies outside is then the very sound of the cut, and was not encoded once more.
 * @param made path of the file, which is put in its place; it stays as it is where this cannot be done
 * @param folder for what is made on the way
 * @returns whether it was done
 */
export async function keepSoundOutside(
  made: string,
  kept: KeptSound,
  folder: string,
  options: RunOptions,
): Promise<boolean> {
  const { cut, facts, recipe, sounds = new Map() } = kept;
  const { sound } = recipe;
  if (typeof sound !== 'object' || !isInSpansAlone(kept)) return false;
  const rate = sound.sampleRate;
  const [own, anew, joined] = ['own.aac', 'anew.aac', 'joined.aac'].map((name) => path.join(folder, name)) as [
    string,
    string,
    string,
  ];
  try {
    const start = await firstSample(cut, options);
    if (start === undefined) return false;
    const quiet = ['-v', 'error', '-nostdin', '-y'];
    const adts = ['-f', 'adts'];
    await runProgram(
      'ffmpeg',
      [...quiet, ...FROM_OUTSIDE, '-i', cut, '-map', '0:a:0', '-c', 'copy', ...adts, own],
      options,
    );
    const shifted = inFrames(recipe, fraction(start, rate), facts.duration);
    const graph = soundGraph(shifted, facts, sounds);
    if (!graph) return false;
    const encoding = ['-c:a', 'aac', '-b:a', `${sound.kilobits}k`, '-ar', String(rate)];
    await runProgram(
      'ffmpeg',
      [
        ...[...quiet, '-i', own, ...graph.inputs, '-filter_complex', graph.filters, '-map', `[${graph.out}]`],
        ...[...encoding, ...adts, anew],
      ],
      options,
    );
    const spans = [...(shifted.silence ?? []), ...(shifted.swaps ?? [])];
    const places = await seams(own, anew, framesIn(spans, rate));
    if (!places) return false;
    await pipeline(Readable.from(spliced(own, anew, places)), createWriteStream(joined));
    await putSound(made, joined, start / rate, recipe.container, options);
    return true;
  } catch (error) {
    // The file is whole without it.
    if (error instanceof ProgramError || error instanceof NotAlike || error instanceof NoAdts) return false;
    throw error;
  }
}

/** The frames of two sounds do not follow each other one by one. */
class NotAlike extends Error {
  override name = 'NotAlike';
}

/**
 * The sample of the first frame, counted from the moment at which the cut begins: before it, where the first is for the
 * decoder alone. Undefined where frames are missing, or the cut begins later than at nought.
 */
async function firstSample(cut: string, options: RunOptions): Promise<number | undefined> {
  const entries = 'format=start_time:packet=pts,duration';
  const args = ['-v', 'error', ...FROM_OUTSIDE, '-select_streams', 'a:0', '-show_entries', entries, '-of', 'csv', cut];
  let [first, next, whole]: [number | undefined, number, boolean] = [undefined, 0, true];
  await runProgram('ffprobe', args, options, async (out: Readable) => {
    for await (const line of createInterface({ input: out })) {
      const [kind, at, length] = line.split(',');
      if (kind === 'format' && Number(at) !== 0) whole = false;
      if (kind !== 'packet') continue;
      const pts = Number(at);
      first ??= pts;
      if (first !== pts && pts !== next) whole = false;
      // The last may be cut short by its container.
      if (Number(length) > FRAME) whole = false;
      next = pts + FRAME;
    }
  });
  return whole ? first : undefined;
}

/**
 * The spans of a recipe in the time of the frames, the first of which begins at nought.
 * @param start of the first frame in the cut @param end of the cut, both in seconds
 */
function inFrames(recipe: Recipe, start: Fraction, end: Fraction): Recipe {
  const at = (time: Fraction) => (compare(time, start) <= 0 ? ZERO : minus(time, start));
  const moved = <S extends CutSpan>(span: S): S => ({ ...span, from: at(span.from), to: at(span.to) });
  // What is silent from the beginning, or to the end, is so in what only the decoder hears, too.
  const silent = (span: CutSpan) => ({
    from: compare(span.from, ZERO) <= 0 ? ZERO : at(span.from),
    to: compare(span.to, end) >= 0 ? plus(at(span.to), fraction(1)) : at(span.to),
  });
  return { ...recipe, silence: recipe.silence?.map(silent), swaps: recipe.swaps?.map(moved) };
}

/** The frames that have to be new for these spans, those that overlap as one. */
function framesIn(spans: readonly CutSpan[], rate: number): NewFrames[] {
  const frames = spans
    .map(({ from, to }) => ({
      first: Math.max(0, Math.floor((toNumber(from) * rate) / FRAME) - LEAD),
      last: Math.floor((toNumber(to) * rate) / FRAME) + LEAD,
    }))
    .sort((a, b) => a.first - b.first);
  const joined: NewFrames[] = [];
  for (const each of frames) {
    const before = joined.at(-1);
    if (before && each.first <= before.last + FARTHEST * 2) before.last = Math.max(before.last, each.last);
    else joined.push({ ...each });
  }
  return joined;
}

/** Both frames of each place, side by side: the cut's own, and the one that was made anew for it. */
async function* sideBySide(own: string, anew: string): AsyncGenerator<{ own: Buffer; anew: Buffer }> {
  const others = adtsFrames(anew);
  for (let skipped = 0; skipped < ENCODER_LEAD; skipped += 1) await others.next();
  for await (const frame of adtsFrames(own)) {
    const other = await others.next();
    if (other.done || soundFormatOf(other.value) !== soundFormatOf(frame)) throw new NotAlike();
    yield { own: frame, anew: other.value };
  }
}

/**
 * Moves each end of the new frames outwards to where the windows of both sounds fit, so that what overlaps cancels as it
 * should (Princen and Bradley, time domain aliasing). Undefined where they fit nowhere near.
 */
async function seams(own: string, anew: string, frames: readonly NewFrames[]): Promise<NewFrames[] | undefined> {
  const near = (index: number) =>
    frames.some(({ first, last }) => Math.min(Math.abs(index - first), Math.abs(index - last)) <= FARTHEST + 1);
  const windows = new Map<number, { own?: FrameWindow; anew?: FrameWindow }>();
  let count = 0;
  for await (const pair of sideBySide(own, anew)) {
    if (near(count)) windows.set(count, { own: windowOf(pair.own), anew: windowOf(pair.anew) });
    count += 1;
  }
  /** Whether one sound may follow the other from this frame on: all that meet are long, and slope alike. */
  const fits = (index: number) => {
    const [before, after] = [windows.get(index - 1), windows.get(index)];
    const four = [before?.own, before?.anew, after?.own, after?.anew];
    return four.every((each) => each?.long) && before?.own?.shape === before?.anew?.shape;
  };
  const found: NewFrames[] = [];
  for (const { first, last } of frames) {
    let [from, after] = [first, last + 1];
    while (from > 0 && from > first - FARTHEST && !fits(from)) from -= 1;
    while (after < count && after < last + FARTHEST && !fits(after)) after += 1;
    if ((from > 0 && !fits(from)) || (after < count && !fits(after))) return undefined;
    found.push({ first: from, last: after - 1 });
  }
  return found;
}

async function* spliced(own: string, anew: string, places: readonly NewFrames[]): AsyncGenerator<Buffer> {
  let index = 0;
  for await (const pair of sideBySide(own, anew)) {
    const isNew = places.some(({ first, last }) => index >= first && index <= last);
    yield isNew ? pair.anew : pair.own;
    index += 1;
  }
}

/** Gives a file another sound that begins at these seconds; nothing is encoded. */
async function putSound(
  made: string,
  sound: string,
  start: number,
  container: Recipe['container'],
  options: RunOptions,
): Promise<void> {
  const whole = `${made}.kept.${container}`;
  await runProgram(
    'ffmpeg',
    [
      ...['-v', 'error', '-nostdin', '-y', '-i', made, '-itsoffset', start.toFixed(9), '-f', 'aac', '-i', sound],
      ...['-map', '0:v:0', '-map', '1:a:0', '-c', 'copy', '-bsf:a', 'aac_adtstoasc', '-map_metadata', '0'],
      ...['-strict', 'unofficial', '-movflags', '+faststart', '-f', container === 'mov' ? 'mov' : 'mp4', whole],
    ],
    options,
  );
  await rename(whole, made);
}
