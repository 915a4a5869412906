import { execFileSync } from 'node:child_process';
import { describe, expect, it } from 'vitest';
import type { Recipe, SoundRecipe } from '@/core/renditions';
import { fraction } from '@/core/time';
import { H264, looked, made, PICTURE } from '../../../tests/setup/made-files';
import { makeRendition } from './make-rendition';

const RATE = 48_000;
/** So far from a span new frames reach at the most: two of lead, two that overlap, and those up to where the windows fit. */
const REACH = 0.7;
const NOISE = ['-f', 'lavfi', '-i', `anoisesrc=d=6:c=brown:r=${RATE}:a=0.4:s=7`];
const SOUND: SoundRecipe = { codec: 'aac', kilobits: 192, sampleRate: RATE };
const span = (from: number, to: number) => ({ from: fraction(from * 1000, 1000), to: fraction(to * 1000, 1000) });
const cut = () =>
  made('kept-sound.mp4', ...PICTURE, ...NOISE, '-ac', '2', ...H264, '-c:a', 'aac', '-aac_pns', '0', '-b:a', '128k');

/** What is heard, as every player hears it, of one channel. */
const samplesOf = (file: string): Float32Array => {
  const args = ['-v', 'error', '-nostdin', '-i', file, '-map', '0:a:0', '-ac', '1', '-f', 'f32le', '-'];
  const bytes = execFileSync('ffmpeg', args, { maxBuffer: 2 ** 28 });
  return new Float32Array(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.length));
};
/** The time and a mark of the bytes of each frame of sound (ffmpeg-formats, framemd5). */
const framesOf = (file: string): string[] => {
  const args = ['-v', 'error', '-nostdin', '-i', file, '-map', '0:a:0', '-c', 'copy', '-f', 'framemd5', '-'];
  const lines = execFileSync('ffmpeg', args, { encoding: 'utf8' }).split('\n');
  return lines.filter((line) => line !== '' && !line.startsWith('#'));
};
const timeOf = (line: string) => line.split(',')[2];
const markOf = (line: string) => line.split(',').at(-1);

async function rendered(recipe: Partial<Recipe>, sounds = new Map<string, string>(), file = cut()) {
  const { facts } = await looked(file);
  const to = `${file}.${Math.random()}.mp4`;
  const whole: Recipe = { container: 'mp4', picture: 'copy', sound: SOUND, ...recipe };
  const { soundAround } = await makeRendition(file, facts, whole, to, { sounds });
  return { file, to, soundAround: soundAround ?? Number.NaN };
}

const loudest = (samples: Float32Array, from: number, to: number) =>
  samples
    .subarray(Math.round(from * RATE), Math.round(to * RATE))
    .reduce((most, each) => Math.max(most, Math.abs(each)), 0);
const same = (a: Float32Array, b: Float32Array, from: number, to: number) => {
  const [first, last] = [Math.round(from * RATE), Math.round(to * RATE)];
  return a.subarray(first, last).every((each, index) => each === b[first + index]);
};

describe('sound outside a part that is silent', () => {
  it('is the cut’s own, frame by frame and sample by sample, and stays in time with the picture', async () => {
    const { file, to, soundAround } = await rendered({ silence: [span(2, 3.5)] });
    const [was, is] = [samplesOf(file), samplesOf(to)];
    expect(is.length).toBe(was.length);
    expect(same(was, is, 0, 2 - REACH)).toBe(true);
    expect(same(was, is, 3.5 + REACH, 6)).toBe(true);
    expect(loudest(is, 2.02, 3.48)).toBeLessThan(0.0001);
    // Up to the part itself it sounds as before.
    expect(loudest(is, 1.9, 1.98)).toBeGreaterThan(0.05);
    expect(loudest(is, 3.52, 3.6)).toBeGreaterThan(0.05);
    // How far around it is new is what is said of it: nothing farther away is, and something as far away.
    expect(soundAround).toBeLessThan(REACH * 1000);
    expect(same(was, is, 0, 2 - soundAround / 1000)).toBe(true);
    expect(same(was, is, 3.5 + soundAround / 1000, 6)).toBe(true);
    const less = (soundAround - 25) / 1000;
    expect(same(was, is, 0, 2 - less) && same(was, is, 3.5 + less, 6)).toBe(false);
    const [before, after] = [framesOf(file), framesOf(to)];
    expect(after).toHaveLength(before.length);
    expect(after.map(timeOf)).toEqual(before.map(timeOf));
    const other = before.flatMap((line, index) => (markOf(line) === markOf(after[index] ?? '') ? [] : [index]));
    const seconds = other.map((index) => (index * 1024) / RATE);
    expect(seconds[0]).toBeGreaterThan(2 - REACH);
    expect(seconds.at(-1)).toBeLessThan(3.5 + REACH);
  });

  it('is the cut’s own between two parts, and at the very start and end', async () => {
    const { file, to } = await rendered({ silence: [span(0, 0.5), span(5.5, 6)] });
    const [was, is] = [samplesOf(file), samplesOf(to)];
    expect(same(was, is, 0.5 + REACH, 5.5 - REACH)).toBe(true);
    expect(loudest(is, 0, 0.4)).toBeLessThan(0.0001);
    expect(loudest(is, 5.6, 6)).toBeLessThan(0.0001);
  });

  it('is the cut’s own where other sound is put in', async () => {
    const tone = made('kept-tone.wav', '-f', 'lavfi', '-i', 'sine=f=880:r=44100:d=3');
    const { file, to } = await rendered({ swaps: [{ ...span(2, 3), sound: 'other' }] }, new Map([['other', tone]]));
    const [was, is] = [samplesOf(file), samplesOf(to)];
    expect(same(was, is, 0, 2 - REACH)).toBe(true);
    expect(same(was, is, 3 + REACH, 6)).toBe(true);
    const heard = is.subarray(Math.round(2.2 * RATE), Math.round(2.7 * RATE));
    const crossings = heard.filter((each, index) => index > 0 && each >= 0 !== (heard[index - 1] ?? 0) >= 0).length;
    expect(Math.abs(crossings - 880)).toBeLessThan(10);
  });

  it('is as near where a decoder makes noise up for some of its frames', async () => {
    const noisy = made('kept-noisy.mp4', ...PICTURE, ...NOISE, '-ac', '2', ...H264, '-c:a', 'aac', '-b:a', '48k');
    const { soundAround } = await rendered({ silence: [span(2, 3.5)] }, new Map(), noisy);
    expect(soundAround).toBeGreaterThan(0);
    expect(soundAround).toBeLessThan(REACH * 1000);
  });

  it('is encoded with the rest where it is brought to a loudness', async () => {
    const { file, to, soundAround } = await rendered({ silence: [span(2, 3)], sound: { ...SOUND, loudness: -23 } });
    expect(soundAround).toBeGreaterThan(2500);
    expect(loudest(samplesOf(to), 2.05, 2.95)).toBeLessThan(0.001);
    const own = new Set(framesOf(file).map(markOf));
    expect(framesOf(to).filter((line) => own.has(markOf(line))).length).toBeLessThan(5);
  });
});
