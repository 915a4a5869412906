import type { BitMeasures, CutFacts, CutMeasures } from '@/core/delivery';
import { ceil, toNumber } from '@/core/time';
import { FROM_OUTSIDE, runProgram } from '../program';
import { bitsOverTime } from './bits';
import { pictureFilters, pictureMeter } from './picture';
import { soundFilters, soundMeter } from './sound';
import { eachFrame } from './told';

/** A machine that needs longer than this many times the cut's own length is not measuring any more. */
const SLOWEST_PACE = 4;
const LEAST_MILLISECONDS = 10 * 60 * 1000;

/** What of a cut's facts has to be known to measure it. */
export type ToMeasure = Pick<CutFacts, 'duration' | 'audio'> & { video: Pick<CutFacts['video'], 'rate'> };

/**
 * Measures a cut's picture and sound with ffmpeg, decoded once, at low priority: loudness, shots, black, frozen and silent
 * spans, peaks, clipped samples, how channels go together, where picture and sound end, and how many bits the picture takes.
 * @param onProgress hears which part of it is measured, from 0 to 1
 * @throws ProgramError where ffmpeg cannot decode it; the signal's reason where it aborts
 */
export async function measureCut(
  path: string,
  { duration, video, audio }: ToMeasure,
  signal?: AbortSignal,
  onProgress: (fraction: number) => void = () => {},
): Promise<CutMeasures> {
  const seconds = ceil(duration);
  const picture = pictureMeter(video.rate);
  const sound = soundMeter({ channels: audio?.channels ?? 0, sampleRate: audio?.sampleRate || 48_000, seconds });
  const args = [
    ...['-v', 'error', '-nostdin', ...FROM_OUTSIDE, '-i', path],
    ...['-map', '0:v:0', '-vf', pictureFilters('pipe\\\\:1'), '-f', 'null', '-'],
    // Each packet as it stands in the file, with its size; nothing is decoded for that.
    ...['-map', '0:v:0', '-c:v', 'copy', '-f', 'framecrc', 'pipe:4'],
    ...(audio ? ['-map', '0:a:0', '-af', soundFilters(audio.channels, 'pipe\\\\:3'), '-f', 'null', '-'] : []),
  ];
  const milliseconds = Math.max(LEAST_MILLISECONDS, seconds * 1000 * SLOWEST_PACE);
  let bits: BitMeasures | undefined;
  await runProgram('ffmpeg', args, { signal, milliseconds, niceness: 15 }, (out, third, fourth) =>
    Promise.all([
      eachFrame(out, (frame) => {
        picture.hear(frame);
        onProgress(Math.min(1, toNumber(frame.at) / seconds));
      }),
      eachFrame(third, (frame) => sound.hear(frame)),
      bitsOverTime(fourth, seconds).then((told) => {
        bits = told;
      }),
    ]),
  );
  const { start, ...seen } = picture.end();
  const heard = sound.end(start);
  return { loudness: heard.loudness, ...seen, ...(audio ? { sound: heard.sound } : {}), bits };
}
