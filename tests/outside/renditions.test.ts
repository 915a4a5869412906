import { execFileSync } from 'node:child_process';
import { statSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import { type CutFacts, reasonsNotTaken } from '@/core/delivery';
import { marker } from '@/core/markers';
import {
  type Asked,
  demandOf,
  type FileSet,
  leftOutOf,
  READY_SETS,
  type Recipe,
  type Remedies,
  sizeOfRecipe,
} from '@/core/renditions';
import { fraction, toNumber } from '@/core/time';
import { readChaptersInside, writeChaptersInside } from '@/media/chapters';
import { readFacts } from '@/media/facts';
import { makeRendition } from '@/media/rendition/make-rendition';
import { lanternfoldProfile as lanternfold } from '@/sites/lanternfold/profile';
import { pipwireProfile as pipwire } from '@/sites/pipwire/profile';
import { stallmarketProfile as stallmarket } from '@/sites/stallmarket/profile';
import { AAC, H264, looked, made, pictureOf, toneOf } from '../setup/made-files';

const [PICTURE, TONE] = [pictureOf(2), toneOf(2)];

const probe = (file: string, ...shown: string[]) =>
  execFileSync('ffprobe', ['-v', 'error', ...shown, '-of', 'json', file], { encoding: 'utf8' });
const framesOf = (file: string): number =>
  Number(
    JSON.parse(probe(file, '-count_frames', '-select_streams', 'v:0', '-show_entries', 'stream=nb_read_frames'))
      .streams[0].nb_read_frames,
  );

/** Makes the file that a channel would get, and reads it back. */
async function sent(
  file: string,
  site: Asked['site'],
  { set, remedies = {} }: { set?: FileSet; remedies?: Remedies } = {},
): Promise<{ facts: CutFacts; recipe: Recipe; to: string; why: string[]; work: string }> {
  const cut = await looked(file);
  const demand = demandOf(cut, { site, set, remedies });
  if ('refused' in demand) throw new Error(demand.refused);
  const [recipe] = demand.recipes;
  if (!recipe) throw new Error(`as it is: ${demand.why}`);
  const to = `${file}.made-${path.basename(site.name)}.${recipe.container}`;
  await makeRendition(file, cut.facts, recipe, to);
  const facts = await readFacts(to, statSync(to).size);
  expect(facts).toMatchObject(byFfprobe(to));
  return { facts, recipe, to, why: demand.why, work: demand.work };
}

/** What ffprobe says of a file, taken from its answer without the code under test. */
function byFfprobe(file: string) {
  type Told = Record<string, string> & { width: number; height: number };
  const { streams } = JSON.parse(probe(file, '-show_streams')) as { streams: Told[] };
  const of = (type: string) => streams.find((each) => each.codec_type === type);
  const [picture, sound] = [of('video'), of('audio')];
  const [num = 0, den = 1] = picture?.avg_frame_rate?.split('/').map(Number) ?? [];
  return {
    video: {
      codec: picture?.codec_name,
      width: picture?.width,
      height: picture?.height,
      rate: fraction(num, den),
      more: { bits: picture?.pix_fmt?.includes('10') ? 10 : 8, interlaced: picture?.field_order === 'tt' },
    },
    ...(sound && { audio: { codec: sound.codec_name } }),
  };
}

const set = (settings: Partial<FileSet['settings']>): FileSet => {
  const [talk] = READY_SETS;
  if (!talk) throw new Error('no ready set');
  return { ...talk, settings: { ...talk.settings, size: { way: 'keep' }, ...settings } };
};

describe('a file that is made, read back by ffprobe and taken by its site', () => {
  it('says what of the file is not in it: further sound tracks, subtitles', async () => {
    const words = path.join(path.dirname(made('words.mp4', ...PICTURE, ...H264)), 'words.srt');
    writeFileSync(words, '1\n00:00:00,000 --> 00:00:02,000\nHello\n');
    const two = ['-map', '0:v', '-map', '1:a', '-map', '1:a', '-map', '2:s'];
    const file = made('tracks.mkv', ...PICTURE, ...TONE, '-i', words, ...two, ...H264, ...AAC, '-c:s', 'srt');
    const { recipe, facts } = await sent(file, pipwire);
    const cut = await looked(file);
    expect(cut.facts.more).toMatchObject({ subtitles: 1, sounds: [{ codec: 'aac' }, { codec: 'aac' }] });
    // Copied, both sound tracks go along; encoded, the first does.
    expect(facts.more).toMatchObject({ subtitles: 0, sounds: [{ codec: 'aac' }, { codec: 'aac' }] });
    expect(leftOutOf(recipe, cut.facts)).toEqual(['subtitles inside the file are left out (add them as captions)']);
    const encoded = await sent(file, pipwire, { set: set({}), remedies: { loudness: -23 } });
    expect(encoded.facts.more?.sounds).toHaveLength(1);
    expect(leftOutOf(encoded.recipe, cut.facts)[0]).toBe('of 2 sound tracks only the first goes along');
  });

  it('is copied where only the container is not taken: not a picture changes', async () => {
    const file = made('copy.mkv', ...PICTURE, ...TONE, ...H264, ...AAC);
    const { facts, work, why, to } = await sent(file, pipwire);
    expect([work, why]).toEqual(['container', ['Pipwire does not take MKV']]);
    expect(reasonsNotTaken(facts, pipwire)).toEqual([]);
    expect(facts.more?.indexFirst).toBe(true);
    const packets = (name: string) =>
      probe(name, '-show_entries', 'packet=data_hash', '-show_data_hash', 'MD5', '-select_streams', 'v');
    // The same bytes, but for the way in which lengths are written: as many packets, and as many frames.
    expect(JSON.parse(packets(to)).packets).toHaveLength(JSON.parse(packets(file)).packets.length);
    expect(framesOf(to)).toBe(framesOf(file));
  });

  it('has only its sound encoded where a container cannot hold it', async () => {
    const file = made('pcm.mov', ...PICTURE, ...TONE, ...H264, '-c:a', 'pcm_s16le');
    const { facts, work, why } = await sent(file, pipwire);
    expect([work, facts.audio?.codec]).toEqual(['sound', 'aac']);
    expect(why).toEqual(['MP4 cannot hold PCM, 16 bit', 'Pipwire does not take MOV']);
  });

  it('is 8-bit H.264 where the cut is 10-bit H.265 and the site takes no other', async () => {
    const file = made(
      'ten.mp4',
      ...PICTURE,
      ...TONE,
      '-c:v',
      'libx265',
      '-preset',
      'ultrafast',
      '-x265-params',
      'log-level=error',
      '-pix_fmt',
      'yuv420p10le',
      ...AAC,
    );
    const { facts, work } = await sent(file, stallmarket);
    expect([work, facts.video.codec, facts.video.more?.bits, facts.container]).toEqual(['encode', 'h264', 8, 'mp4']);
    expect(reasonsNotTaken(facts, stallmarket)).toEqual([]);
    expect(framesOf(`${file}.made-Stallmarket.mp4`)).toBe(50);
  });

  it('stays below the size that a site takes, by two passes', async () => {
    const file = made(
      'large.mp4',
      '-f',
      'lavfi',
      '-i',
      'testsrc2=s=320x180:r=30:d=5,noise=alls=20:allf=t',
      ...TONE,
      ...H264,
      '-crf',
      '10',
      ...AAC,
    );
    const largest = 400_000;
    const { facts, recipe, why } = await sent(file, { ...pipwire, file: { ...pipwire.file, largest } });
    expect(why[0]).toMatch(/^The file has .* Pipwire takes 391 KiB$/);
    expect(recipe.picture).toMatchObject({ control: { way: 'variable', passes: 2 } });
    expect(facts.size).toBeLessThanOrEqual(largest);
    expect(facts.size).toBeGreaterThan(largest * 0.7);
  });

  it('has the size, rate and codec of a set', async () => {
    const file = made('wide.mp4', '-f', 'lavfi', '-i', 'testsrc2=s=1280x720:r=50:d=2', ...TONE, ...H264, ...AAC);
    const webm = set({
      container: 'webm',
      codec: 'vp9',
      size: { way: 'at most', lines: 360 },
      rate: fraction(25),
      sound: { codec: 'opus', kilobits: 96, sampleRate: 48_000, loudness: null },
    });
    const { facts } = await sent(file, lanternfold, { set: webm });
    expect(facts).toMatchObject({
      container: 'webm',
      video: { codec: 'vp9', width: 640, height: 360, rate: fraction(25) },
      audio: { codec: 'opus' },
    });
  });

  it('stands upright, with square pixels and whole frames', async () => {
    const turned = made(
      'turned.mp4',
      '-i',
      made('flat.mp4', ...PICTURE, ...H264),
      '-c',
      'copy',
      '-metadata:s:v',
      'rotate=90',
    );
    const small = set({ size: { way: 'at most', lines: 90 } });
    expect((await sent(turned, lanternfold, { set: small })).facts.video).toMatchObject({
      width: 90,
      height: 160,
      more: { turned: 0 },
    });
    const fields = made(
      'fields.mp4',
      ...PICTURE,
      ...TONE,
      '-vf',
      'setsar=4/3',
      ...H264,
      '-flags',
      '+ildct+ilme',
      '-x264opts',
      'tff=1',
      ...AAC,
    );
    const { facts } = await sent(fields, lanternfold, { set: small });
    expect(facts.video.more).toMatchObject({ interlaced: false, pixelShape: fraction(1) });
    expect(facts.video.width).toBe(214);
    // The remedy does the same where nobody has chosen file settings; without it the file goes as it is.
    const converted = await sent(fields, lanternfold, { remedies: { convert: true } });
    expect(converted.facts.video.more).toMatchObject({ interlaced: false, bits: 8 });
    expect(converted.why).toEqual(['the picture is interlaced']);
    await expect(sent(fields, lanternfold)).rejects.toThrow('as it is');
  });

  it('is standard range where the cut is HDR (ITU-R BT.2100 to BT.709)', async () => {
    const hdr = ['-color_primaries', 'bt2020', '-color_trc', 'smpte2084', '-colorspace', 'bt2020nc'];
    const file = made(
      'hdr.mp4',
      ...PICTURE,
      '-vf',
      'format=yuv420p10le',
      '-c:v',
      'libx265',
      '-preset',
      'ultrafast',
      '-x265-params',
      'log-level=error:colorprim=bt2020:transfer=smpte2084:colormatrix=bt2020nc',
      ...hdr,
    );
    const { facts } = await sent(file, stallmarket);
    expect(facts.video.more).toMatchObject({ hdr: undefined, transfer: 'bt709', matrix: 'bt709', bits: 8 });
  });
});

describe('remedies', () => {
  const tone = (name: string, volume: string) =>
    made(name, ...PICTURE, ...TONE, '-af', `volume=${volume}`, ...H264, ...AAC);

  it.each([
    ['quiet', '-22dB', -16],
    ['loud', '12dB', -23],
  ] as const)(
    'bring a %s sound to its loudness within 0.5 LU and below −1 dBTP (EBU R 128)',
    async (name, volume, loudness) => {
      const { to, work } = await sent(tone(`${name}.mp4`, volume), lanternfold, { remedies: { loudness } });
      const { measures } = await looked(to);
      expect(work).toBe('sound');
      expect(Math.abs((measures.sound?.integratedLufs ?? 0) - loudness)).toBeLessThanOrEqual(0.5);
      expect(measures.sound?.truePeakDbtp).toBeLessThanOrEqual(-1);
    },
  );

  it('hold peaks back where one gain alone would clip', async () => {
    const bursts = "aevalsrc='if(lt(mod(t,1),0.02),0.9,0.06)*sin(2*PI*997*t)':s=48000:d=6";
    const file = made('bursts.mp4', ...PICTURE, '-f', 'lavfi', '-i', bursts, ...H264, ...AAC);
    const { to } = await sent(file, lanternfold, { remedies: { loudness: -16 } });
    const { measures } = await looked(to);
    expect(measures.sound?.truePeakDbtp).toBeLessThanOrEqual(-1);
    expect(Math.abs((measures.sound?.integratedLufs ?? 0) + 16)).toBeLessThanOrEqual(0.5);
  });

  it.each([
    ['24000/1001', fraction(1001, 24_000)],
    ['25', fraction(1, 25)],
    ['30000/1001', fraction(1001, 30_000)],
  ] as const)('leave off the start and the end to the frame, at %s frames a second', async (rate, frame) => {
    const file = made(
      `cut-${rate.replace('/', '-')}.mp4`,
      '-f',
      'lavfi',
      '-i',
      `testsrc2=s=320x180:r=${rate}:d=4`,
      ...TONE,
      ...H264,
      ...AAC,
    );
    const at = (frames: number) => fraction(frame.num * frames, frame.den);
    const { to, facts } = await sent(file, lanternfold, { remedies: { from: at(17), to: at(67) } });
    expect(framesOf(to)).toBe(50);
    expect(facts.video.rate).toEqual(fraction(frame.den, frame.num));
    // The first picture is the eighteenth of the cut.
    const picture = (name: string, number: number) =>
      execFileSync('ffmpeg', [
        '-v',
        'error',
        '-i',
        name,
        '-vf',
        `select=eq(n\\,${number}),scale=160:90,format=gray`,
        '-frames:v',
        '1',
        '-f',
        'rawvideo',
        '-',
      ]);
    const apart = (a: Buffer, b: Buffer) =>
      a.reduce((sum, value, index) => sum + Math.abs(value - (b[index] ?? 0)), 0) / a.length;
    const first = picture(to, 0);
    const [right, ...wrong] = [17, 16, 18].map((number) => apart(first, picture(file, number)));
    for (const other of wrong) expect(right).toBeLessThan(other);
  });

  it('leave off the end without encoding anything', async () => {
    const file = made('tail.mp4', ...PICTURE, ...TONE, ...H264, ...AAC);
    const { facts, work } = await sent(file, lanternfold, { remedies: { to: fraction(1) } });
    expect(work).toBe('container');
    // Pictures that are stored before the moment and shown after it may come along.
    expect(toNumber(facts.duration)).toBeGreaterThanOrEqual(1);
    expect(toNumber(facts.duration)).toBeLessThan(1.2);
  });

  it('say that a picture is a whole sphere (Spherical Video V2, read back by ffprobe), with the index first', async () => {
    const file = made('sphere.mp4', '-f', 'lavfi', '-i', 'testsrc2=s=640x320:r=25:d=2', ...TONE, ...H264, ...AAC);
    const { facts, to, work } = await sent(file, lanternfold, { remedies: { sphere: true } });
    expect(work).toBe('container');
    expect(facts.video.more?.sphere).toBe('equirectangular');
    expect(facts.more?.indexFirst).toBe(true);
    expect(framesOf(to)).toBe(50);
    const { side_data_list: sides } = JSON.parse(probe(to, '-show_streams', '-select_streams', 'v:0')).streams[0];
    expect(sides).toEqual([
      expect.objectContaining({
        side_data_type: 'Spherical Mapping',
        projection: 'equirectangular',
        yaw: 0,
        pitch: 0,
        roll: 0,
      }),
    ]);
  });

  it('put the index first', async () => {
    const file = made('last.mp4', ...PICTURE, ...TONE, ...H264, ...AAC);
    const { facts, work } = await sent(file, lanternfold, { remedies: { indexFirst: true } });
    expect([work, facts.more?.indexFirst]).toEqual(['container', true]);
  });

  it('move the chapters inside with the start, exactly', async () => {
    const file = made('inside.mkv', ...PICTURE, ...TONE, ...H264, ...AAC);
    const whole = file.replace('inside', 'chapters');
    const chapter = (seconds: number, name: string) => marker({ time: fraction(seconds), name });
    await writeChaptersInside(file, whole, {
      rate: undefined,
      markers: [chapter(0, 'One'), chapter(2, 'Two')],
      end: fraction(4),
    });
    const { to } = await sent(whole, lanternfold, { remedies: { from: fraction(1) } });
    const { markers } = await readChaptersInside(to);
    expect(markers.map(({ name, time }) => [name, toNumber(time)])).toEqual([
      ['One', 0],
      ['Two', 1],
    ]);
  });
});

describe('levels of H.264 (ITU-T H.264, table A-1: macroblocks a second, macroblocks a frame; from memory)', () => {
  const LEVELS = [
    ...([
      ['1', 1485, 99],
      ['1.1', 3000, 396],
      ['1.2', 6000, 396],
      ['1.3', 11_880, 396],
      ['2', 11_880, 396],
    ] as const),
    ...([
      ['2.1', 19_800, 792],
      ['2.2', 20_250, 1620],
      ['3', 40_500, 1620],
      ['3.1', 108_000, 3600],
    ] as const),
    ...([
      ['3.2', 216_000, 5120],
      ['4', 245_760, 8192],
      ['4.2', 522_240, 8704],
      ['5', 589_824, 22_080],
    ] as const),
  ];

  it.each([
    ['640x360', 25],
    ['1280x720', 50],
    ['1920x1080', 25],
  ])('of a file of %s at %s frames a second are enough for it', async (size, rate) => {
    const file = made(`level-${size}.mkv`, '-f', 'lavfi', '-i', `testsrc2=s=${size}:r=${rate}:d=0.12`, '-c:v', 'ffv1');
    const { facts } = await sent(file, { ...pipwire, file: { ...pipwire.file, containers: ['mp4'] } });
    const { width, height, more } = facts.video;
    const blocks = Math.ceil(width / 16) * Math.ceil(height / 16);
    const least = LEVELS.find(([, aSecond, aFrame]) => blocks * rate <= aSecond && blocks <= aFrame)?.[0];
    expect(Number(more?.level)).toBeGreaterThanOrEqual(Number(least));
    expect(Number(more?.level)).toBeLessThanOrEqual(5.2);
  });
});

describe('sizes', () => {
  it('follow from rate and length: 16 Mbit/s for one hour is 7.2 GB (by hand)', async () => {
    const { facts } = await looked(made('hour.mp4', ...PICTURE, ...H264));
    const recipe: Recipe = {
      container: 'mp4',
      picture: {
        codec: 'h264',
        width: 1920,
        height: 1080,
        control: { way: 'variable', kilobits: 16_000, ceiling: 20_000, passes: 2 },
      },
      sound: 'none',
    };
    expect(sizeOfRecipe(recipe, { ...facts, duration: fraction(3600) }).likely).toBe(7_200_000_000);
  });
});
