import { describe, expect, it } from 'vitest';
import { H264, looked, made } from '../setup/made-files';

/** A part of a test signal: a sine of 1 kHz in phase in all channels, at so many dBFS, for so many seconds. */
type Part = [dbfs: number, seconds: number];

/** A file whose sound is made of such parts, one after the other. */
async function measured(name: string, parts: readonly Part[], channels: string) {
  const inputs = parts.flatMap(([dbfs, seconds]) => {
    const peak = 10 ** (dbfs / 20);
    return ['-f', 'lavfi', '-i', `aevalsrc=exprs=${peak}*sin(2*PI*1000*t):s=48000:d=${seconds}`];
  });
  const joined = `${parts.map((_, index) => `[${index}]`).join('')}concat=n=${parts.length}:v=0:a=1,${channels}[a]`;
  const length = parts.reduce((sum, [, seconds]) => sum + seconds, 0);
  const picture = ['-f', 'lavfi', '-i', `color=gray:s=64x36:r=5:d=${length}`];
  const file = made(
    `${name}.mov`,
    ...[...inputs, ...picture, '-filter_complex', joined, '-map', `${parts.length}:v`, '-map', '[a]'],
    ...[...H264, '-c:a', 'pcm_s24le'],
  );
  return (await looked(file)).measures.sound;
}

const STEREO = 'pan=stereo|c0=c0|c1=c0';

// EBU Tech 3341 (2016), table 1, cases 1 to 6: integrated loudness within 0.1 LU. The signals are made after its text, from memory.
describe('integrated loudness, by the test signals of EBU Tech 3341', () => {
  it.each<[nr: number, expected: number, parts: Part[]]>([
    [1, -23, [[-23, 20]]],
    [2, -33, [[-33, 20]]],
    [
      3,
      -23,
      [
        [-36, 10],
        [-23, 60],
        [-36, 10],
      ],
    ],
    [
      4,
      -23,
      [
        [-72, 10],
        [-36, 10],
        [-23, 60],
        [-36, 10],
        [-72, 10],
      ],
    ],
    [
      5,
      -23,
      [
        [-26, 20],
        [-20, 20.1],
        [-26, 20],
      ],
    ],
  ])('case %i gives %d LUFS', async (nr, expected, parts) => {
    const sound = await measured(`tech-3341-${nr}`, parts, STEREO);
    expect(Math.abs((sound?.integratedLufs ?? 0) - expected)).toBeLessThanOrEqual(0.11);
  });

  it('case 6, 5.0 channels, gives −23 LUFS', async () => {
    const gain = (dbfs: number) => 10 ** ((dbfs + 24) / 20);
    const [front, middle, back] = [gain(-28), gain(-24), gain(-30)];
    const channels = `pan=5.0(side)|FL=${front}*c0|FR=${front}*c0|FC=${middle}*c0|SL=${back}*c0|SR=${back}*c0`;
    const sound = await measured('tech-3341-6', [[-24, 20]], channels);
    expect(Math.abs((sound?.integratedLufs ?? 0) + 23)).toBeLessThanOrEqual(0.11);
  });
});

// EBU Tech 3342 (2016), table 1, cases 1 to 4: loudness range within 1 LU. The signals are made after its text, from memory.
describe('loudness range, by the test signals of EBU Tech 3342', () => {
  it.each<[nr: number, expected: number, parts: Part[]]>([
    [
      1,
      10,
      [
        [-20, 20],
        [-30, 20],
      ],
    ],
    [
      2,
      5,
      [
        [-20, 20],
        [-15, 20],
      ],
    ],
    [
      3,
      20,
      [
        [-40, 20],
        [-20, 20],
      ],
    ],
    [
      4,
      15,
      [
        [-50, 20],
        [-35, 20],
        [-20, 20],
        [-35, 20],
        [-50, 20],
      ],
    ],
  ])('case %i gives %d LU', async (nr, expected, parts) => {
    const sound = await measured(`tech-3342-${nr}`, parts, STEREO);
    expect(Math.abs((sound?.rangeLu ?? 0) - expected)).toBeLessThanOrEqual(1);
  });
});

// ITU-R BS.1770-4, annex 2, and EBU Tech 3341, case 15 (from memory): a sine of a quarter of the rate, at 45°, peaks between samples.
describe('true peak', () => {
  it('is found between the samples, which themselves stay 3 dB below it', async () => {
    const source =
      'aevalsrc=exprs=0.5*sin(2*PI*12000*t+PI/4):s=48000:d=4,afade=d=0.5,afade=t=out:st=3.5:d=0.5,pan=stereo|c0=c0|c1=c0';
    const picture = ['-f', 'lavfi', '-i', 'color=gray:s=64x36:r=5:d=4'];
    const file = made('true-peak.mov', ...picture, '-f', 'lavfi', '-i', source, ...H264, '-c:a', 'pcm_s24le');
    const { sound } = (await looked(file)).measures;
    expect(sound?.channels[0]?.peakDb).toBeCloseTo(-9, 0);
    // It fades in and out, since a sine that starts at once overshoots. +0.2 and −0.4 dB are allowed.
    expect(sound?.truePeakDbtp).toBeGreaterThanOrEqual(-6.4);
    expect(sound?.truePeakDbtp).toBeLessThanOrEqual(-5.8);
  });
});
