import { copyFileSync, existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { beforeAll, describe, expect, it } from 'vitest';
import { bringLocalFile } from '@/desk/cut/bring-local-file';
import { editDefaults } from '@/desk/defaults/defaults';
import { newSeries } from '@/desk/defaults/series';
import { tidyUp } from '@/desk/house/tidy-up';
import { actOnRendition } from '@/desk/rendition/act-on-rendition';
import { lookAtSheet } from '@/desk/views/look-at-sheet';
import { database } from '@/store/database';
import { files } from '@/store/files/folder';
import { newId } from '@/store/ids';
import { settings } from '@/store/settings';
import { channelsOfTheYard, untilSheet } from '../setup/desk';
import { AAC, H264, made } from '../setup/made-files';
import { aWorker } from '../setup/worker';

const inbox = mkdtempSync(path.join(os.tmpdir(), 'kettle-inbox-'));
const worker = aWorker({ KETTLE_INBOX: inbox });
let ids: Map<string, string>;
let series: string;

const clip = (name: string, seconds: number) =>
  made(
    name,
    ...[
      '-f',
      'lavfi',
      '-i',
      `testsrc2=s=320x180:r=25:d=${seconds}`,
      '-f',
      'lavfi',
      '-i',
      `sine=f=440:r=48000:d=${seconds}`,
    ],
    ...['-af', 'volume=-6dB', ...H264, ...AAC, '-movflags', '+faststart'],
  );
const put = (name: string, bytes: string | Buffer) => writeFileSync(path.join(inbox, name), bytes);
const names = (folder: string) =>
  existsSync(path.join(inbox, folder)) ? readdirSync(path.join(inbox, folder)).sort() : [];
const videoOf = async (title: string) =>
  ((await database()('videos').where({ title }).select('id')) as { id: string }[]).map(({ id }) => id);

beforeAll(async () => {
  ids = await channelsOfTheYard();
  series = await newSeries({ name: 'Slipway', pattern: 'slipway_{title}' });
  const values = { privacy: 'private', forChildren: false, language: 'en', channels: [ids.get('Marrow Quay')] };
  await editDefaults({ layer: 'series', owner: series }, values);
});

describe('a folder that is watched', () => {
  it('becomes videos with what stands beside them; what cannot be taken says why; a worker that is killed makes none twice', async () => {
    put('notes.txt', 'for nobody');
    put('broken.mp4', 'this is no video');
    put('slipway_greasing-the-ways.srt', '1\n00:00:01,000 --> 00:00:02,000\nTallow\n');
    put('slipway_greasing-the-ways.edl', 'this is no edit');
    copyFileSync(clip('ways.mp4', 5), path.join(inbox, 'slipway_greasing-the-ways.mp4.part'));
    // What has a partial name is left alone, with what waits for it, while others are seen to.
    await expect.poll(() => names('refused')).toContain('broken.mp4');
    expect(names('taken')).toEqual([]);
    copyFileSync(clip('ways.mp4', 5), path.join(inbox, 'slipway_greasing-the-ways.mp4'));
    await expect.poll(() => names('taking').length, { interval: 20 }).toBeGreaterThan(0);
    await worker.end('SIGKILL');
    worker.start();
    await expect.poll(() => names('taken')).toEqual(['slipway_greasing-the-ways.mp4', 'slipway_greasing-the-ways.srt']);
    const [videoId = '', ...more] = await videoOf('Greasing the ways');
    expect(more).toEqual([]);
    const sheet = await lookAtSheet(videoId);
    expect(sheet.series?.name).toBe('Slipway');
    expect(sheet.captions).toMatchObject([{ language: 'en', fileName: 'slipway_greasing-the-ways.srt' }]);
    expect(sheet.channels.flatMap(({ ticked, name }) => (ticked ? [name] : []))).toEqual(['Marrow Quay']);
    // Its series does not say that it goes out by itself.
    expect(sheet.channels.find(({ ticked }) => ticked)?.drop?.state).toBe('draft');
    await expect
      .poll(() => names('refused'))
      .toEqual([
        'broken.mp4',
        'broken.mp4.why.txt',
        'slipway_greasing-the-ways.edl',
        'slipway_greasing-the-ways.edl.why.txt',
      ]);
    expect(readFileSync(path.join(inbox, 'refused/broken.mp4.why.txt'), 'utf8')).toContain('This is not a video file');
    expect(names('taking')).toEqual([]);
    expect(names('.')).toContain('notes.txt');
  });

  it('is taken in by the next worker where one was killed after it had brought the video in, and before it noted so', async () => {
    await worker.end();
    const folder = path.join(inbox, 'taking', newId());
    mkdirSync(folder, { recursive: true });
    const file = path.join(folder, 'slipway_cut-short.mp4');
    copyFileSync(clip('cut-short.mp4', 3), file);
    const { videoId } = await bringLocalFile(file);
    worker.start();
    await expect.poll(() => names('taken')).toContain('slipway_cut-short.mp4');
    expect(names('refused')).not.toContain('slipway_cut-short.mp4');
    expect(await videoOf('Cut short')).toEqual([videoId]);
  });

  it('goes out by itself where its series says so, and is refused where it is here already', async () => {
    await editDefaults(
      { layer: 'series', owner: series },
      { sendFromInbox: true, deleteMadeFiles: true, file: { way: 'set', set: 'talk' } },
    );
    // Made once: each Matroska file has numbers of its own.
    const launch = clip('launch.mkv', 6);
    copyFileSync(launch, path.join(inbox, 'slipway_the-launch.mkv'));
    await expect.poll(() => videoOf('The launch')).toHaveLength(1);
    const [videoId = ''] = await videoOf('The launch');
    const sheet = await untilSheet(videoId, ({ channels }) => channels.some(({ drop }) => drop?.state === 'live'));
    const [rendition] = sheet.renditions;
    expect(rendition).toMatchObject({ state: 'ready', work: 'container' });
    copyFileSync(launch, path.join(inbox, 'slipway_the-launch.mkv'));
    await expect.poll(() => names('refused')).toContain('slipway_the-launch.mkv');
    expect(readFileSync(path.join(inbox, 'refused/slipway_the-launch.mkv.why.txt'), 'utf8')).toContain(
      'here already, as “The launch”',
    );
    // Its file is deleted once it is live, and no longer offered.
    const { fileKey } = await database()('renditions').where({ id: rendition?.id }).first('fileKey');
    expect(await files().size(fileKey)).toBeGreaterThan(0);
    const left = path.join(settings().home, 'making', `${rendition?.id}-1-1`);
    mkdirSync(left, { recursive: true });
    await tidyUp();
    expect(existsSync(left)).toBe(false);
    await expect(files().size(fileKey)).rejects.toThrow();
    expect((await lookAtSheet(videoId)).renditions).toMatchObject([{ state: 'gone' }]);
    await expect(actOnRendition(rendition?.id ?? '', { action: 'delete' })).rejects.toThrow('not being made now');
  });
});
