import { createInterface } from 'node:readline';
import type { Readable } from 'node:stream';
import type { CutSpan } from '@/core/delivery';
import { toNumber } from '@/core/time';
import { FROM_OUTSIDE, type RunOptions, runProgram } from '../program';

/** A stretch of sound, in seconds, with a mark of its bytes. */
interface Stretch {
  from: number;
  to: number;
  mark: string;
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
  const [was, is] = [await stretches(cut, coded, options), await stretches(made, coded, options)];
  const marks = new Map(is.map(({ from, mark }) => [from, mark]));
  // A frame sounds as its own bytes and those of the one before have it.
  const alike = new Set(
    was.flatMap(({ from, mark }, index) => {
      const before = was[index - 1];
      const isAlike = (each: Stretch | undefined) => !each || marks.get(each.from) === each.mark;
      return marks.get(from) === mark && isAlike(before) ? from : [];
    }),
  );
  const heard = ['-c:a', 'pcm_f32le'];
  const [before, after] = [await stretches(cut, heard, options), await stretches(made, heard, options)];
  const sounds = new Map(after.map(({ from, mark }) => [from, mark]));
  const other = before.filter(({ from, mark }) => sounds.get(from) !== mark && !alike.has(from));
  const parts = spans.map(({ from, to }) => ({ from: toNumber(from), to: toNumber(to) }));
  const farthest = other.reduce((most, { from, to }) => {
    const away = parts.map((part) => Math.max(0, part.from - from, to - part.to));
    return Math.max(most, Math.min(...away));
  }, 0);
  return Math.ceil(farthest * 1000);
}

/** The sound of a file in its frames (ffmpeg-formats, framemd5: stream, times in its base, size, and a digest of each). */
async function stretches(file: string, codec: readonly string[], options: RunOptions): Promise<Stretch[]> {
  const found: Stretch[] = [];
  let base = 1;
  const args = [
    '-v',
    'error',
    '-nostdin',
    ...FROM_OUTSIDE,
    '-i',
    file,
    '-map',
    '0:a:0',
    ...codec,
    '-f',
    'framemd5',
    '-',
  ];
  await runProgram('ffmpeg', args, options, async (out: Readable) => {
    for await (const line of createInterface({ input: out })) {
      const [, over, under] = /^#tb 0: (\d+)\/(\d+)/.exec(line) ?? [];
      if (over && under) base = Number(over) / Number(under);
      if (line.startsWith('#')) continue;
      const [, , at, length, , mark = ''] = line.split(',').map((part) => part.trim());
      const from = Number(at);
      if (!Number.isFinite(from)) continue;
      found.push({ from: from * base, to: (from + Number(length)) * base, mark });
    }
  });
  return found;
}
