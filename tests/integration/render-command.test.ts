import { existsSync, mkdtempSync, readdirSync, statSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import { readFacts } from '@/media/facts';
import { kettle } from '../setup/command';
import { AAC, H264, made, PICTURE, TONE } from '../setup/made-files';

const folder = mkdtempSync(path.join(os.tmpdir(), 'kettle-render-'));
const mkv = () => made('plan.mkv', ...PICTURE, ...TONE, ...H264, ...AAC);
const tail = () => {
  const black = ['-f', 'lavfi', '-i', 'color=black:s=320x180:r=25:d=2', '-f', 'lavfi', '-i', 'sine=f=440:r=48000:d=6'];
  const joined = ['-filter_complex', '[0][1]concat=n=2:v=1:a=0[v]', '-map', '[v]', '-map', '2:a'];
  return made('tail.mp4', ...PICTURE, ...black, ...joined, ...H264, ...AAC);
};

describe('plan by the command line', () => {
  it('says which site gets which file and why, as text and as JSON', async () => {
    const { status, out } = await kettle(['plan', mkv(), '--site', 'lanternfold', '--site', 'pipwire']);
    expect(status).toBe(0);
    expect(out).toContain('Lanternfold: the file as it is');
    expect(out).toContain('Pipwire: MP4, picture not touched, sound not touched');
    expect(out).toContain('  Pipwire does not take MKV');
    const sites = ['lanternfold', 'fieldgate', 'stallmarket'].flatMap((site) => ['--site', site]);
    const talk = await kettle(['plan', mkv(), ...sites, '--settings', 'talk', '--remedy', 'loudness=-16', '--json']);
    const { renditions, refused } = JSON.parse(talk.out);
    expect(refused).toEqual([]);
    expect(renditions).toHaveLength(1);
    expect(renditions[0]).toMatchObject({ work: 'sound', recipe: { container: 'mp4', sound: { loudness: -16 } } });
    expect(renditions[0].sites.map(({ site }: { site: string }) => site)).toEqual([
      'Lanternfold',
      'Fieldgate',
      'Stallmarket',
    ]);
    for (const range of ['bytes', 'making', 'sending']) expect(renditions[0][range].likely).toBeGreaterThan(0);
  });

  it('ends with 1 where no file can be made, and says what is wrong with what was asked', async () => {
    const long = made('long.mp4', '-f', 'lavfi', '-i', 'color=s=64x64:r=5:d=125', ...H264);
    const { status, out } = await kettle(['plan', long, '--site', 'pipwire']);
    expect([status, out]).toEqual([
      1,
      '▲ Pipwire: The video lasts 125 s; Pipwire takes 120 s. Cut it to 120 s, or untick Pipwire.\n',
    ]);
    for (const [asked, says] of [
      [['--settings', 'best'], 'There are no settings called best; there are talk, screen, action, trailer'],
      [['--settings', '{"codec":'], 'The settings are no JSON'],
      [['--settings', '{"container":"avi"}'], 'container must be one of'],
      [['--remedy', 'glow'], 'There is no remedy glow'],
      [['--remedy', 'end'], 'Nothing is found at its end'],
      [['--remedy', 'loudness=3'], 'Loudness goes from -36 to -8 LUFS.'],
    ] as const) {
      const refused = await kettle(['plan', mkv(), '--site', 'lanternfold', ...asked]);
      expect([refused.status, refused.out]).toEqual([1, '']);
      expect(refused.said).toContain(says);
    }
  });
});

describe('render by the command line', () => {
  it('makes the file with what is black left off, writes over nothing, and leaves nothing half', async () => {
    const to = path.join(folder, 'out.mp4');
    const asked = ['render', tail(), '--site', 'lanternfold', '--remedy', 'end', '--output', to];
    const { status, said } = await kettle(asked);
    expect([status, said]).toEqual([0, expect.stringContaining('out.mp4: MP4, picture not touched')]);
    const { duration } = await readFacts(to, statSync(to).size);
    expect(duration.num / duration.den).toBeGreaterThanOrEqual(4);
    expect(duration.num / duration.den).toBeLessThan(4.2);
    const again = await kettle(asked);
    expect([again.status, again.said]).toEqual([1, expect.stringContaining('is there already')]);
    expect(readdirSync(folder)).toEqual(['out.mp4']);
  });

  it('takes the container that the name asks for, or says which it will be', async () => {
    const mov = made('sound.mov', ...PICTURE, ...TONE, ...H264, '-c:a', 'pcm_s16le');
    const wrong = await kettle(['render', mov, '--site', 'fieldgate', '--output', path.join(folder, 'x.mp4')]);
    expect([wrong.status, wrong.said]).toEqual([
      1,
      expect.stringContaining('The file will be MOV. Let its name end in .mov.'),
    ]);
    const to = path.join(folder, 'talk.mp4');
    const tenBit = made('ten.mov', ...PICTURE, ...TONE, '-c:v', 'prores_ks', '-c:a', 'pcm_s16le');
    expect((await kettle(['render', tenBit, '--site', 'stallmarket', '--output', to])).status).toBe(0);
    expect(await readFacts(to, statSync(to).size)).toMatchObject({ container: 'mp4', audio: { codec: 'aac' } });
  });

  it('copies what a site takes as it is', async () => {
    const to = path.join(folder, 'copy.mkv');
    expect((await kettle(['render', mkv(), '--site', 'lanternfold', '--output', to])).said).toContain(
      'takes the file as it is',
    );
    expect(existsSync(to)).toBe(true);
  });
});
