import { describe, expect, it } from 'vitest';
import { kettle } from '../setup/command';
import { AAC, H264, made, PICTURE, TONE } from '../setup/made-files';

const wellMade = () => made('well-made.mp4', ...PICTURE, ...TONE, ...H264, ...AAC, '-movflags', '+faststart');
const tenBits = () =>
  made(
    'ten-bits.mkv',
    ...[...PICTURE, ...TONE, '-c:v', 'libx265', '-pix_fmt', 'yuv420p10le', '-x265-params', 'log-level=0', ...AAC],
  );

describe('preflight by the command line', () => {
  it('says nothing against a file that is as it should be, and ends well', async () => {
    const { status, out, said } = await kettle(['preflight', wellMade(), '--site', 'Stallmarket']);
    expect([status, said]).toEqual([0, '']);
    expect(out).toContain('MP4 · H.264 · 320×180 · 25 fps · AAC');
    expect(out).toContain('● Nothing to say against it.');
  });

  it('gives facts, measures and findings as JSON, and ends with 1 where a site does not take the file', async () => {
    const { status, out } = await kettle(['preflight', tenBits(), '--site', 'stallmarket', '--json']);
    expect(status).toBe(1);
    const { facts, measures, findings } = JSON.parse(out);
    expect(facts.video).toMatchObject({ codec: 'hevc', more: { bits: 10 } });
    expect(measures).toMatchObject({ black: [], frozen: [], silent: [], clippedSamples: 0, pictureEnds: 4 });
    expect(typeof measures.integratedLufs).toBe('number');
    expect(typeof measures.truePeakDbtp).toBe('number');
    const stops = findings.filter(({ level }: { level: string }) => level === 'stops');
    expect(stops.map(({ what }: { what: string }) => what)).toEqual([
      'The file is MKV; Stallmarket takes MP4 or MOV',
      'The picture is H.265; Stallmarket takes H.264',
      'The picture has 10 bits a sample; Stallmarket takes 8',
    ]);
    for (const finding of findings) {
      expect(Object.keys(finding)).toEqual(['rule', 'level', 'site', 'from', 'to', 'what', 'why', 'remedy']);
    }
    expect((await kettle(['preflight', tenBits()])).status).toBe(0);
  });

  it('says what is wrong with what cannot be looked over', async () => {
    expect(await kettle(['preflight', '/no/such/file.mp4'])).toMatchObject({ status: 1, out: '' });
    const { status, said } = await kettle(['preflight', 'package.json']);
    expect(status).toBe(1);
    expect(said).toContain('This is not a video file');
  });
});
