import { execFileSync } from 'node:child_process';
import { describe, expect, it } from 'vitest';
import type { Recipe } from '@/core/renditions';
import { type Fraction, fraction, over } from '@/core/time';
import { AAC, H264, looked, made, PICTURE } from '../../../tests/setup/made-files';
import { makeRendition } from './make-rendition';
import { soundGraph } from './part-graphs';

const RATE = 48_000;
const NOISE = ['-f', 'lavfi', '-i', `anoisesrc=d=4:c=pink:r=${RATE}:a=0.4:s=7`];
const samplesOf = (...args: string[]): Int16Array => {
  const pcm = ['-f', 's16le', '-c:a', 'pcm_s16le', '-'];
  const bytes = execFileSync('ffmpeg', ['-v', 'error', '-nostdin', ...args, ...pcm], { maxBuffer: 2 ** 28 });
  return new Int16Array(bytes.buffer, bytes.byteOffset, bytes.length / 2);
};
const sample = (seconds: number) => Math.round(RATE * seconds);
const at = (seconds: number) => fraction(Math.round(seconds * 1000), 1000);
const span = (from: number, to: number) => ({ from: at(from), to: at(to) });
/** Where two sounds differ: the first and the last sample, of one channel. */
function differ(a: Int16Array, b: Int16Array): [number, number] | undefined {
  const first = a.findIndex((sample, index) => sample !== b[index]);
  return first < 0 ? undefined : [first, a.findLastIndex((sample, index) => sample !== b[index])];
}

// Uncompressed sound, so that each sample can be compared.
const cut = () =>
  made('parts.mov', ...PICTURE, ...NOISE, '-ac', '1', ...H264, '-c:a', 'pcm_s16le', '-ar', String(RATE));

async function through(recipe: Pick<Recipe, 'from' | 'without' | 'silence' | 'swaps'>, sounds = new Map()) {
  const file = cut();
  const { facts } = await looked(file);
  const graph = soundGraph(recipe, facts, sounds);
  if (!graph) throw new Error('nothing is done to the sound');
  const inputs = [...(recipe.from ? ['-ss', String(recipe.from.num / recipe.from.den)] : []), '-i', file];
  return {
    was: samplesOf(...inputs, '-map', '0:a:0'),
    is: samplesOf(...inputs, ...graph.inputs, '-filter_complex', graph.filters, '-map', `[${graph.out}]`),
  };
}

describe('parts of the sound', () => {
  it('are silent to the sample, and every other sample stays as it was', async () => {
    const { was, is } = await through({ silence: [span(1, 1.5), span(3.25, 3.3)] });
    expect(is).toHaveLength(was.length);
    expect(is.subarray(RATE, sample(1.5)).every((sample) => sample === 0)).toBe(true);
    expect(is.subarray(sample(3.25), sample(3.3)).every((sample) => sample === 0)).toBe(true);
    for (const [from, to] of [
      [0, 1],
      [1.5, 3.25],
      [3.3, 4],
    ] as const) {
      expect(differ(was.subarray(sample(from), sample(to)), is.subarray(sample(from), sample(to)))).toBeUndefined();
    }
  });

  it('are where they were meant where the start is left off', async () => {
    const { was, is } = await through({ from: at(0.5), silence: [span(1, 1.5)] });
    expect(differ(was, is)).toEqual([sample(0.5), RATE - 1]);
  });

  it('give way to other sound in their span alone; what is too short is silent to its end', async () => {
    const tone = made('tone.wav', '-f', 'lavfi', '-i', 'sine=f=880:r=44100:d=0.4');
    const sounds = new Map([['other', tone]]);
    const { was, is } = await through({ swaps: [{ ...span(1, 2), sound: 'other' }] }, sounds);
    const [first, last] = differ(was, is) ?? [0, 0];
    expect(first).toBeGreaterThanOrEqual(RATE);
    expect(last).toBeLessThan(sample(2));
    const heard = is.subarray(sample(1.1), sample(1.3));
    // A tone of 880 Hz crosses zero 1,760 times a second.
    const crossings = heard.filter((sample, index) => index > 0 && sample >= 0 !== (heard[index - 1] ?? 0) >= 0).length;
    expect(crossings).toBeGreaterThan(345);
    expect(crossings).toBeLessThan(358);
    expect(is.subarray(sample(1.5), sample(2)).every((sample) => sample === 0)).toBe(true);
  });

  it('are left out, and what follows joins to the sample', async () => {
    const { was, is } = await through({ without: [span(1, 2.2)] });
    const expected = Int16Array.from([...was.subarray(0, RATE), ...was.subarray(sample(2.2))]);
    expect(is).toHaveLength(expected.length);
    expect(differ(expected, is)).toBeUndefined();
  });
});

describe('a file with a part left out', () => {
  it('loses just these frames, and sound and picture end together', async () => {
    const file = made('left-out.mp4', ...PICTURE, ...NOISE, ...H264, ...AAC);
    const { facts } = await looked(file);
    const frame = (count: number): Fraction => over(fraction(count), facts.video.rate);
    const recipe: Recipe = {
      ...{ container: 'mp4', without: [{ from: frame(30), to: frame(55) }] },
      picture: {
        ...{ codec: 'h264', width: 320, height: 180 },
        control: { way: 'quality', quality: 20, ceiling: 2000 },
      },
      sound: { codec: 'aac', kilobits: 128, sampleRate: 48_000 },
    };
    const target = `${file}.made.mp4`;
    const result = await makeRendition(file, facts, recipe, target);
    const counted = execFileSync('ffprobe', [
      ...['-v', 'error', '-count_frames', '-select_streams', 'v:0'],
      ...['-show_entries', 'stream=nb_read_frames', '-of', 'csv=p=0', target],
    ]);
    expect(Number(counted)).toBe(100 - 25);
    expect(result.duration.num / result.duration.den).toBeCloseTo(3, 1);
    expect(Math.abs(samplesOf('-i', target, '-map', '0:a:0', '-ac', '1').length / RATE - 3)).toBeLessThan(0.05);
  });
});
