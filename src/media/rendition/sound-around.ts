import { createInterface } from 'node:readline';
import type { Readable } from 'node:stream';
import type { CutSpan } from '@/core/delivery';
import { toNumber } from '@/core/time';
import { FROM_OUTSIDE, type RunOptions, runProgram } from '../program';

/** The frames of a sound in their order: when each begins and ends, in seconds, and a mark of its bytes. Hours of them are kept. */
interface Frames {
  from: number[];
  to: number[];
  mark: number[];
}

/**
 * How far around the parts of a file that are silent, or have other sound, its sound is another than the cut's: both are
 * decoded and compared. Where a decoder makes noise up by itself for a frame whose bytes are the same (perceptual noise
 * substitution, ISO/IEC 14496-3, 4.6.13; from memory), the file is not at fault.
 * @param made path of the file, whose time is the cut's own
 * @returns milliseconds, the farthest on either side of a part; more than the parts lie from the ends where nothing is the same
 */
export async function soundAround(
  cut: string,
  made: string,
  spans: readonly CutSpan[],
  options: RunOptions,
): Promise<number> {
  const coded = ['-c', 'copy'];
  const isAlike = alike(await framesOf(cut, coded, options), await framesOf(made, coded, options));
  const heard = ['-c:a', 'pcm_f32le'];
  const [was, is] = [await framesOf(cut, heard, options), await framesOf(made, heard, options)];
  const markOf = inOrder(is, (at) => is.mark[at]);
  const parts = spans.map(({ from, to }) => ({ from: toNumber(from), to: toNumber(to) }));
  let farthest = 0;
  for (const [at, from] of was.from.entries()) {
    const [sounds, bytesAlike] = [markOf(from) === was.mark[at], isAlike(from)];
    if (sounds || bytesAlike) continue;
    const to = was.to[at] ?? from;
    farthest = Math.max(farthest, Math.min(...parts.map((part) => Math.max(0, part.from - from, to - part.to))));
  }
  return Math.ceil(farthest * 1000);
}

/** Whether the frame that begins at a time has the same bytes in both, and the one before, which sounds into it. */
function alike(was: Frames, is: Frames): (from: number) => boolean {
  const markOf = inOrder(is, (at) => is.mark[at]);
  const same = was.from.map((from, at) => markOf(from) === was.mark[at]);
  const at = inOrder(was, (index) => index);
  return (from) => {
    const index = at(from);
    return index !== undefined && same[index] === true && same[index - 1] !== false;
  };
}

/** What is found of the frame that begins at a time, for times that are asked for in their order. */
function inOrder<T>(frames: Frames, found: (index: number) => T): (from: number) => T | undefined {
  let at = 0;
  return (from) => {
    while ((frames.from[at] ?? Number.POSITIVE_INFINITY) < from) at += 1;
    return frames.from[at] === from ? found(at) : undefined;
  };
}

/** Digits of a digest that tell frames apart, as many as a number holds. */
const MARK_DIGITS = 12;

/** The sound of a file in its frames (ffmpeg-formats, framemd5: stream, times in its base, size, and a digest of each). */
async function framesOf(file: string, codec: readonly string[], options: RunOptions): Promise<Frames> {
  const frames: Frames = { from: [], to: [], mark: [] };
  let base = 1;
  const args = [
    ...['-v', 'error', '-nostdin', ...FROM_OUTSIDE, '-i', file, '-map', '0:a:0'],
    ...[...codec, '-f', 'framemd5', '-'],
  ];
  await runProgram('ffmpeg', args, options, async (out: Readable) => {
    for await (const line of createInterface({ input: out })) {
      const [, over, under] = /^#tb 0: (\d+)\/(\d+)/.exec(line) ?? [];
      if (over && under) base = Number(over) / Number(under);
      if (line.startsWith('#')) continue;
      const [, , at, length, , digest = ''] = line.split(',').map((part) => part.trim());
      const from = Number(at);
      if (!Number.isFinite(from)) continue;
      frames.from.push(from * base);
      frames.to.push((from + Number(length)) * base);
      frames.mark.push(Number.parseInt(digest.slice(0, MARK_DIGITS), 16));
    }
  });
  return frames;
}
