import { describe, expect, it } from 'vitest';
import { areAlike } from '@/core/likeness';
import { AAC, H264, looked, made } from '../setup/made-files';

/** Shots of one colour each, with a tone that is loud and soft by turns; another seed, another video. */
function video(name: string, seed: number): string {
  const lengths = Array.from({ length: 8 }, (_, index) => 1.5 + ((index * 7 + seed * 5) % 11) / 5);
  const total = lengths.reduce((sum, length) => sum + length, 0);
  const colours = ['red', 'navy', 'green', 'white', 'purple', 'orange', 'teal', 'yellow'];
  const shots = lengths.flatMap((length, index) => [
    '-f',
    'lavfi',
    '-i',
    `color=${colours[(index * 3 + seed) % 8]}:s=320x180:r=25:d=${length}`,
  ]);
  const level = `pow(10\\,-(1+mod(floor(t/2)*${3 + seed}\\,5))*0.3)*sin(2*PI*440*t)`;
  const sound = ['-f', 'lavfi', '-i', `aevalsrc=${level}:s=48000:d=${total}`];
  const joined = `${lengths.map((_, index) => `[${index}]`).join('')}concat=n=8:v=1:a=0[v]`;
  return made(name, ...shots, ...sound, '-filter_complex', joined, '-map', '[v]', '-map', '8:a', ...H264, ...AAC);
}

const of = async (file: string) => {
  const { facts, measures } = await looked(file);
  return { measures, rate: facts.video.rate };
};

describe('likeness (the same video by way of ffmpeg; other videos beside it)', () => {
  it('survives another codec, size, level and end, and a start that is left off; another video is none', async () => {
    const first = video('likeness.mp4', 1);
    const original = await of(first);
    const again = [
      [
        'small.webm',
        '-vf',
        'scale=160:90',
        '-c:v',
        'libvpx-vp9',
        '-b:v',
        '80k',
        '-deadline',
        'realtime',
        '-cpu-used',
        '8',
        '-c:a',
        'libopus',
        '-b:a',
        '48k',
      ],
      ['soft.mp4', '-af', 'volume=-7dB', ...H264, '-crf', '35', ...AAC],
      ['short.mp4', '-t', '14', ...H264, ...AAC],
    ] as const;
    for (const [name, ...args] of again)
      expect(areAlike(original, await of(made(name, '-i', first, ...args))), name).toBe(true);
    const later = made('later.mp4', '-ss', '2.2', '-i', first, ...H264, ...AAC);
    expect(areAlike(original, await of(later)), 'start left off').toBe(true);
    expect(areAlike(await of(later), original), 'the other way round').toBe(true);
    for (const seed of [2, 3])
      expect(areAlike(original, await of(video(`other-${seed}.mp4`, seed))), String(seed)).toBe(false);
  });

  it('is told of nothing that is like many others: one shot with an even tone', async () => {
    const even = (name: string, colour: string) =>
      made(
        name,
        '-f',
        'lavfi',
        '-i',
        `color=${colour}:s=320x180:r=25:d=20`,
        '-f',
        'lavfi',
        '-i',
        'sine=f=440:r=48000:d=20',
        ...H264,
        ...AAC,
      );
    expect(areAlike(await of(even('a.mp4', 'red')), await of(even('b.mp4', 'blue')))).toBe(false);
  });
});
