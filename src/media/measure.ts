import { createInterface } from 'node:readline';
import type { Readable } from 'node:stream';
import { type CutMeasures, SILENCE } from '@/core/delivery';
import type { Fraction } from '@/core/time';
import { FROM_OUTSIDE, runProgram } from './program';

/** Steps that a ruler can show: finer ones would only cost memory. */
const MOST_STEPS = 4000;
/** EBU R 128 gives momentary loudness ten times a second. */
const LOUDNESS_MILLISECONDS = 100;
/** How different two pictures are, of 100, where a shot ends (the default of ffmpeg's scdet filter is 10). */
const SHOT_THRESHOLD = 10;

/** A machine that needs longer than this many times the cut's own length is not measuring any more. */
const SLOWEST_PACE = 4;
const LEAST_MILLISECONDS = 10 * 60 * 1000;

/**
 * Measures a cut's loudness over time and finds its shots, with ffmpeg, in one pass at low priority.
 * @param duration exact seconds; `rate` exact frames a second
 * @param onProgress hears which part of it is measured, from 0 to 1
 * @throws ProgramError where ffmpeg cannot decode it; the signal's reason where it aborts
 */
export async function measureCut(
  path: string,
  facts: { duration: Fraction; rate: Fraction; sound: boolean },
  signal: AbortSignal,
  onProgress: (fraction: number) => void = () => {},
): Promise<CutMeasures> {
  const picture = `scale=320:-2:flags=fast_bilinear,scdet=threshold=${SHOT_THRESHOLD},metadata=print:key=lavfi.scd.time:file=pipe\\\\:1`;
  const sound = 'ebur128=metadata=1,ametadata=print:key=lavfi.r128.M:file=pipe\\\\:3';
  const shots: number[] = [];
  const seconds = Math.ceil(facts.duration.num / facts.duration.den);
  const perStep = Math.max(1, Math.ceil((seconds * 1000) / LOUDNESS_MILLISECONDS / MOST_STEPS));
  const tenths: number[] = [];
  let counted = 0;
  const args = [
    ...['-v', 'error', '-nostdin', ...FROM_OUTSIDE, '-i', path],
    ...['-map', '0:v:0', '-vf', picture, '-f', 'null', '-'],
    ...(facts.sound ? ['-map', '0:a:0', '-af', sound, '-f', 'null', '-'] : []),
  ];
  const milliseconds = Math.max(LEAST_MILLISECONDS, seconds * 1000 * SLOWEST_PACE);
  await runProgram('ffmpeg', args, { signal, milliseconds, niceness: 15 }, (out, third) =>
    Promise.all([
      eachValue(out, 'lavfi.scd.time', (value) => {
        shots.push(Math.round((value * facts.rate.num) / facts.rate.den));
        onProgress(Math.min(1, value / seconds));
      }),
      eachValue(third, 'lavfi.r128.M', (value) => {
        const at = Math.floor(counted / perStep);
        counted += 1;
        tenths[at] = Math.max(tenths[at] ?? SILENCE * 10, Math.round(Math.max(SILENCE, value) * 10));
        onProgress(Math.min(1, (counted * LOUDNESS_MILLISECONDS) / 1000 / seconds));
      }),
    ]),
  );
  return { loudness: { step: perStep * LOUDNESS_MILLISECONDS, tenths }, shots };
}

async function eachValue(stream: Readable, key: string, hear: (value: number) => void): Promise<void> {
  const start = `${key}=`;
  for await (const line of createInterface({ input: stream })) {
    const value = line.startsWith(start) ? Number(line.slice(start.length)) : Number.NaN;
    if (Number.isFinite(value)) hear(value);
  }
}
