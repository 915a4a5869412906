import { execFileSync } from 'node:child_process';
import { describe, expect, it } from 'vitest';
import { preflight } from '@/core/preflight';
import { toNumber } from '@/core/time';
import { AAC, H264, looked, made, pictureOf, toneOf } from '../../../tests/setup/made-files';

const [PICTURE, TONE] = [pictureOf(2), toneOf(2)];

const findingsIn = async (file: string) => {
  const found = await looked(file);
  return { ...found, rules: preflight({ ...found, sites: [] }).map(({ rule }) => rule) };
};
const NOT_WORTH_SAYING = ['index at the end'];
const said = (rules: string[]) => rules.filter((rule) => !NOT_WORTH_SAYING.includes(rule));

describe('one pass over a file', () => {
  it('says nothing against one that is as it should be', async () => {
    const file = made('well.mp4', ...PICTURE, ...TONE, ...H264, ...AAC, '-movflags', '+faststart');
    const { rules, measures, facts } = await findingsIn(file);
    expect(rules).toEqual([]);
    expect(measures.picture).toMatchObject({ end: { num: 2, den: 1 }, varies: false, black: [], frozen: [] });
    expect(Math.abs(toNumber(measures.sound?.end ?? { num: 0, den: 1 }) - 2)).toBeLessThan(0.06);
    expect(facts.more).toMatchObject({ indexFirst: true, brands: expect.arrayContaining(['isom']) });
    expect(facts.video.more).toMatchObject({ bits: 8, interlaced: false, turned: 0, sphere: undefined });
  });

  it('counts the bits of the picture, second by second, as ffprobe tells its packets', async () => {
    const file = made('bits.mp4', ...PICTURE, ...TONE, ...H264, '-bf', '2', ...AAC);
    const { measures } = await looked(file);
    const told = execFileSync(
      'ffprobe',
      [...['-v', 'error', '-select_streams', 'v:0', '-show_entries', 'packet=dts_time,size', '-of', 'csv=p=0'], file],
      { encoding: 'utf8' },
    );
    const packets = told
      .trim()
      .split('\n')
      .map((line) => line.split(',').map(Number) as [number, number]);
    const first = packets[0]?.[0] ?? 0;
    const kilobits: number[] = [];
    for (const [at, size] of packets) {
      const second = Math.floor(at - first + 1e-6);
      kilobits[second] = (kilobits[second] ?? 0) + (size * 8) / 1000;
    }
    expect(measures.bits).toEqual({ step: 1000, kilobits: kilobits.map(Math.round) });
  });

  it('finds a black tail to the frame, at 30000/1001, and whether the sound goes on over it', async () => {
    const black = ['-f', 'lavfi', '-i', 'color=black:s=320x180:r=30000/1001:d=3'];
    const moving = ['-f', 'lavfi', '-i', 'testsrc2=s=320x180:r=30000/1001:d=6'];
    const joined = ['-filter_complex', '[0][1]concat=n=2:v=1:a=0[v]', '-map', '[v]', '-map', '2:a'];
    const tone = ['-f', 'lavfi', '-i', 'sine=f=440:r=48000:d=9'];
    const file = made('black.mp4', ...moving, ...black, ...tone, ...joined, ...H264, ...AAC);
    const { rules, measures, facts } = await findingsIn(file);
    // 180 frames of 1001/30000 s each move, 90 more are black.
    expect(measures.picture?.black).toEqual([{ from: { num: 3003, den: 500 }, to: { num: 9009, den: 1000 } }]);
    expect(said(rules)).toEqual(['black at the end']);
    const [finding] = preflight({ facts, measures, sites: [] });
    expect(finding?.what).toBe('3.0 s of black at the end, while the sound goes on');
  });

  it.each<[name: string, rule: string, args: string[]]>([
    ['no sound', 'no sound', [...PICTURE, ...H264]],
    ['silence', 'silent', [...PICTURE, '-f', 'lavfi', '-i', 'anullsrc=r=48000:cl=stereo:d=4', ...H264, ...AAC]],
    ['one dead side', 'one side', [...PICTURE, ...TONE, '-af', 'pan=stereo|c0=c0|c1=0*c0', ...H264, ...AAC]],
    ['an inverted side', 'out of phase', [...PICTURE, ...TONE, '-af', 'pan=stereo|c0=c0|c1=-1*c0', ...H264, ...AAC]],
    ['clipped sound', 'clipped', [...PICTURE, ...TONE, '-af', 'volume=40dB', ...H264, '-c:a', 'pcm_s16le']],
    ['a tone that is too quiet', 'too quiet', [...PICTURE, ...TONE, '-af', 'volume=-25dB', ...H264, ...AAC]],
    ['interlaced', 'interlaced', [...PICTURE, ...TONE, ...H264, '-flags', '+ildct+ilme', '-x264opts', 'tff=1', ...AAC]],
    [
      'HDR',
      'HDR',
      [...PICTURE, ...TONE, '-c:v', 'libx265', '-pix_fmt', 'yuv420p10le', '-x265-params', 'log-level=0', ...AAC].concat(
        [...['-color_primaries', 'bt2020', '-color_trc', 'smpte2084', '-colorspace', 'bt2020nc']],
      ),
    ],
    ['a sphere without metadata', 'flat sphere', [...PICTURE, ...TONE, '-vf', 'scale=640:320', ...H264, ...AAC]],
    [
      'sound that goes on',
      'sound after the picture',
      [...PICTURE, ...['-f', 'lavfi', '-i', 'sine=f=440:r=48000:d=7'], ...H264, ...AAC],
    ],
    [
      'a held last picture',
      'frozen at the end',
      [
        ...PICTURE,
        ...['-f', 'lavfi', '-i', 'sine=f=440:r=48000:d=8'],
        ...['-vf', 'tpad=stop_mode=clone:stop_duration=4', ...H264, ...AAC],
      ],
    ],
  ])('finds %s', async (name, rule, args) => {
    const file = made(`${name.replaceAll(' ', '-')}.mov`, ...args);
    expect(said((await findingsIn(file)).rules)).toContain(rule);
  });

  it('counts from the first picture, though the container begins before it', async () => {
    // Matroska shows the first picture after the lead of AAC (RFC 9559, CodecDelay).
    const late = made('late.mkv', ...PICTURE, ...TONE, ...H264, ...AAC);
    expect((await looked(late)).measures.picture?.end).toEqual({ num: 2, den: 1 });
  });

  it('finds a rate that varies, and none in a container that rounds to milliseconds', async () => {
    const select = ['-vf', "select='not(eq(mod(n,7),3))'", '-vsync', 'vfr'];
    const varying = made('varying.mkv', ...PICTURE, ...TONE, ...select, ...H264, ...AAC);
    expect((await looked(varying)).measures.picture?.varies).toBe(true);
    const steady = ['-f', 'lavfi', '-i', 'testsrc2=s=320x180:r=60000/1001:d=4'];
    const rounded = made('rounded.mkv', ...steady, ...TONE, ...H264, ...AAC);
    expect((await looked(rounded)).measures.picture?.varies).toBe(false);
  });

  it('measures what comes before a break, and says where it breaks off', async () => {
    const whole = made('whole.mkv', ...['-f', 'lavfi', '-i', 'testsrc2=s=320x180:r=25:d=20'], ...H264);
    const { facts } = await looked(whole);
    const torn = made('torn.mkv', '-i', whole, '-c', 'copy', '-t', '12');
    const { measures } = await looked(torn);
    const findings = preflight({ facts, measures, sites: [] });
    expect(findings.map(({ rule }) => rule)).toContain('breaks off');
    expect(findings.find(({ rule }) => rule === 'breaks off')?.what).toContain('0:12');
  });
});
