import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { actOnDrop } from '@/desk/actions/act-on-drop';
import { undo } from '@/desk/changes/changes';
import { editFileSet, lookAtFileSets, newFileSet, removeFileSet } from '@/desk/defaults/file-sets';
import { sendVideo } from '@/desk/drop/send';
import { actOnRendition } from '@/desk/rendition/act-on-rendition';
import { editVideo, tickChannel } from '@/desk/video/edit-video';
import type { RenditionView } from '@/desk/views/look-at-renditions';
import { lookAtSheet } from '@/desk/views/look-at-sheet';
import type { SheetView } from '@/desk/views/views';
import { database } from '@/store/database';
import { settings } from '@/store/settings';
import { bringFile, channelsOfTheYard, setFaultsAt, untilSheet, videosAt } from '../setup/desk';
import { AAC, H264, made } from '../setup/made-files';
import { aWorker } from '../setup/worker';

const worker = aWorker();
let ids: Map<string, string>;
beforeAll(async () => {
  ids = await channelsOfTheYard();
});
afterAll(() => setFaultsAt('pipwire'));

const SHORT_POSTS = '@marrowquay';
const source = (size: string, seconds: number) => ['-f', 'lavfi', '-i', `testsrc2=s=${size}:r=25:d=${seconds}`];
const tone = (seconds: number) => ['-f', 'lavfi', '-i', `sine=f=440:r=48000:d=${seconds}`];
const clip = (name: string, size: string, seconds: number) =>
  made(name, ...source(size, seconds), ...tone(seconds), ...H264, ...AAC);

/** A video that was read and measured, ticked for some channels. */
async function ready(file: string, ...channels: string[]): Promise<string> {
  const videoId = await bringFile(file, 'none of them');
  for (const name of channels) await tickChannel(videoId, ids.get(name) ?? '', true);
  await editVideo(videoId, { privacy: 'private' });
  await untilSheet(videoId, ({ measured }) => measured === 'ready');
  return videoId;
}

const goingTo = (sheet: SheetView, channel: string): RenditionView | undefined =>
  sheet.renditions.find(({ channels }) => channels.some(({ name }) => name === channel));
const dropAt = (sheet: SheetView, channel: string) => sheet.channels.find(({ name }) => name === channel)?.drop;
const left = () => readdirSync(path.join(settings().home, 'making'));

describe('files for sites', () => {
  it('are copied for the one that needs another container, sent, and read back there byte by byte', async () => {
    const videoId = await ready(clip('for-two.mkv', '320x180', 3), 'Marrow Quay', SHORT_POSTS);
    const before = await lookAtSheet(videoId);
    expect(goingTo(before, 'Marrow Quay')).toMatchObject({ state: 'as it is', work: 'as it is' });
    expect(goingTo(before, SHORT_POSTS)).toMatchObject({
      state: 'planned',
      work: 'container',
      says: 'MP4, picture not touched, sound not touched',
      channels: [{ why: ['Pipwire does not take MKV'] }],
    });
    expect(before.channels.flatMap(({ ticked, missing }) => (ticked ? missing : []))).toEqual([]);
    await sendVideo(videoId);
    // Proofing compares the digest of what the site has with that of the file that was made.
    const sheet = await untilSheet(videoId, (now) =>
      ['Marrow Quay', SHORT_POSTS].every((name) => dropAt(now, name)?.state === 'live'),
    );
    const rendition = goingTo(sheet, SHORT_POSTS);
    expect(rendition).toMatchObject({ state: 'ready', size: expect.any(Number) });
    const [post] = (await videosAt('pipwire')).filter((video) => video.fileName === 'for-two.mp4');
    expect(post).toMatchObject({ size: rendition?.size });
    expect(left()).toEqual([]);
  });

  it('are made once for all that ask for the same, by a set that has a name, and go with what they were sent with', async () => {
    const { id } = await newFileSet({
      name: 'Small',
      settings: {
        ...{ container: 'mp4', codec: 'h264', size: { way: 'at most', lines: 144 }, rate: null },
        ...{ control: { way: 'variable', kilobits: 200, ceiling: 300 } },
        sound: { codec: 'aac', kilobits: 64, sampleRate: 48_000, loudness: null },
      },
    });
    await expect(newFileSet({ name: 'small', settings: {} })).rejects.toThrow();
    const videoId = await ready(clip('small.mp4', '320x180', 4), 'Marrow Quay', SHORT_POSTS);
    await editVideo(videoId, { file: { way: 'set', set: id } });
    await expect(removeFileSet(id)).rejects.toThrow('“Small” is used by one video');
    const planned = (await lookAtSheet(videoId)).renditions;
    expect(planned).toHaveLength(1);
    expect(planned[0]).toMatchObject({ work: 'encode', says: 'MP4, H.264 256×144, 200 kbit/s, sound AAC' });
    expect(planned[0]?.expected?.size.likely).toBeGreaterThan(0);
    await sendVideo(videoId);
    // What is changed while it is made reaches what is sent next, and not this.
    const { settings: was } = (await lookAtFileSets()).sets.find((set) => set.id === id) ?? {};
    await editFileSet(id, { settings: { ...was, size: { way: 'at most', lines: 160 } } });
    const sheet = await untilSheet(videoId, (now) =>
      ['Marrow Quay', SHORT_POSTS].every((name) => dropAt(now, name)?.state === 'live'),
    );
    expect(sheet.renditions).toHaveLength(1);
    expect(sheet.renditions[0]?.says).toContain('256×144');
    expect(sheet.renditions[0]?.seconds).toBeGreaterThan(0);
    expect(await database()('renditions').where({ cutId: sheet.cut?.id }).whereNotNull('recipe')).toHaveLength(1);
    await undo('file-sets');
    expect((await lookAtFileSets()).sets.find((set) => set.id === id)?.settings.size).toEqual({
      way: 'at most',
      lines: 144,
    });
  });

  it('are offered to graphics hardware for what some worker’s machine can encode by it', async () => {
    const row = { startedAt: new Date(), beatAt: new Date() };
    await database()('workers').insert([
      { ...row, id: 'one', hardware: 'h264,hevc' },
      { ...row, id: 'two', hardware: 'h264' },
      { ...row, id: 'three', hardware: '' },
    ]);
    expect((await lookAtFileSets()).hardware.sort()).toEqual(['h264', 'hevc']);
    await database()('workers').whereIn('id', ['one', 'two', 'three']).delete();
  });

  it('start over when the worker is killed, and leave nothing half', async () => {
    const videoId = await ready(clip('killed.mp4', '320x180', 15), SHORT_POSTS);
    const { id } = await newFileSet({ name: 'Slow', settings: slow });
    await editVideo(videoId, { file: { way: 'set', set: id } });
    await sendVideo(videoId);
    await untilSheet(videoId, (sheet) => goingTo(sheet, SHORT_POSTS)?.state === 'making' && left().length > 0);
    await worker.end('SIGKILL');
    worker.start();
    const sheet = await untilSheet(videoId, (now) => dropAt(now, SHORT_POSTS)?.state === 'live');
    expect(goingTo(sheet, SHORT_POSTS)).toMatchObject({ state: 'ready' });
    expect(left()).toEqual([]);
  });

  it('are held, go on, are stopped and made again as a person says', async () => {
    const videoId = await ready(clip('held.mp4', '320x180', 16), SHORT_POSTS);
    const set = (await lookAtFileSets()).sets.find(({ name }) => name === 'Slow');
    await editVideo(videoId, { file: { way: 'set', set: set?.id } });
    await sendVideo(videoId);
    const making = await untilSheet(videoId, (sheet) => (goingTo(sheet, SHORT_POSTS)?.progress?.fraction ?? 0) > 0);
    const id = goingTo(making, SHORT_POSTS)?.id ?? '';
    await actOnRendition(id, { action: 'hold' });
    await untilSheet(videoId, (sheet) => goingTo(sheet, SHORT_POSTS)?.progress?.says === 'on hold');
    expect(goingTo(await lookAtSheet(videoId), SHORT_POSTS)?.state).toBe('on hold');
    await actOnRendition(id, { action: 'go on' });
    await untilSheet(videoId, (sheet) => (goingTo(sheet, SHORT_POSTS)?.progress?.fraction ?? 0) > 0);
    await actOnRendition(id, { action: 'stop' });
    const stopped = await untilSheet(videoId, (sheet) => dropAt(sheet, SHORT_POSTS)?.state === 'snag');
    expect(dropAt(stopped, SHORT_POSTS)?.snag).toMatchObject({
      kind: 'file',
      what: expect.stringContaining('Stopped by a person'),
    });
    await expect(actOnRendition(id, { action: 'stop' })).rejects.toThrow('not being made now');
    // The Sheet makes it again, and so does the drop.
    await actOnRendition(id, { action: 'again' });
    await actOnRendition(id, { action: 'stop' });
    await actOnDrop(dropAt(stopped, SHORT_POSTS)?.id ?? '', { action: 'try again' });
    await untilSheet(videoId, (sheet) => dropAt(sheet, SHORT_POSTS)?.state === 'live');
  });

  it('that cannot be made keep the drop from being sent, with what comes nearest', async () => {
    const videoId = await ready(clip('too-long.mp4', '160x90', 125), SHORT_POSTS, 'Marrow Quay');
    const { notReady, sent } = await sendVideo(videoId);
    expect(sent).toEqual(['Marrow Quay']);
    expect(notReady[0]?.missing).toEqual([
      'The video lasts 125 s; Pipwire takes 120 s. Cut it to 120 s, or untick Pipwire',
    ]);
  });
});

const slow = {
  ...{ container: 'mp4', codec: 'vp9', size: { way: 'keep' }, rate: null },
  ...{ control: { way: 'variable', kilobits: 900, ceiling: 1500 } },
  sound: { codec: 'aac', kilobits: 64, sampleRate: 48_000, loudness: null },
};

describe('remedies', () => {
  it('leave off what is black at the end, bring the sound to a loudness, and are undone as one change', async () => {
    const videoId = await ready(clip('put-right.mp4', '320x180', 5), 'Marrow Quay');
    const { cut } = await lookAtSheet(videoId);
    const remedies = { cutId: cut?.id, from: { num: 1, den: 1 }, to: { num: 4, den: 1 }, loudness: -23 };
    await editVideo(videoId, { remedies });
    const [planned] = (await lookAtSheet(videoId)).renditions;
    expect(planned).toMatchObject({ work: 'encode', says: expect.stringContaining('sound AAC at −23 LUFS') });
    await undo(videoId);
    expect((await lookAtSheet(videoId)).renditions).toMatchObject([{ state: 'as it is' }]);
    await editVideo(videoId, { remedies });
    await sendVideo(videoId);
    const sheet = await untilSheet(videoId, (now) => dropAt(now, 'Marrow Quay')?.state === 'live');
    expect(sheet.renditions).toMatchObject([{ state: 'ready', channels: [{ name: 'Marrow Quay' }] }]);
    await expect(editVideo(videoId, { remedies: { ...remedies, to: { num: 1, den: 2 } } })).rejects.toThrow(
      'has to lie after',
    );
  });
});

describe('a frame that is placed by hand', () => {
  it('cuts an upright file out where it was put, as it was when it was sent; undo takes a place back', async () => {
    const videoId = await ready(clip('framed.mp4', '320x180', 4), SHORT_POSTS);
    await editVideo(videoId, { file: { way: 'set', set: 'upright' } });
    expect(await lookAtSheet(videoId)).toMatchObject({ shapes: ['upright'], framings: {} });
    const upright = {
      percent: 80,
      placements: [{ at: { num: 1, den: 1 }, x: 2000, y: 5000, comes: 'held' as const }],
    };
    await editVideo(videoId, { framings: { upright } });
    await undo(videoId);
    expect((await lookAtSheet(videoId)).framings).toEqual({});
    await editVideo(videoId, { framings: { upright }, on: { framings: {} } });
    await expect(editVideo(videoId, { framings: {}, on: { framings: {} } })).rejects.toThrow();
    const later = { at: { num: 1, den: 2 }, x: 1, y: 1, comes: 'cut' };
    for (const [placements, says] of [
      [[...upright.placements, later], 'in order of time'],
      [[{ ...later, x: 10_001 }], 'outside the picture'],
      [[{ ...later, at: { num: -1, den: 2 } }], 'at or after the start'],
    ] as const) {
      await expect(editVideo(videoId, { framings: { upright: { percent: 80, placements } } })).rejects.toThrow(says);
    }
    await sendVideo(videoId);
    // What is placed while it is made reaches what is sent next.
    await editVideo(videoId, { framings: {} });
    const sheet = await untilSheet(videoId, (now) => dropAt(now, SHORT_POSTS)?.state === 'live');
    expect(goingTo(sheet, SHORT_POSTS)).toMatchObject({
      says: expect.stringContaining('H.264 82×144'),
      state: 'ready',
    });
    const [kept] = await database()('renditions').where({ cutId: sheet.cut?.id }).whereNotNull('recipe');
    expect(JSON.parse(kept.recipe).picture.framed).toEqual({
      full: { width: 320, height: 180 },
      path: [{ at: { num: 0, den: 1 }, x: 2000, y: 5000 }],
    });
  });
});

describe('a file that breaks off', () => {
  it('is said in one plain sentence, leaves nothing half, and other drops go on', async () => {
    const whole = clip('breaks.mkv', '320x180', 12);
    const bytes = readFileSync(whole);
    const broken = whole.replace('breaks', 'broken');
    // Its index is at the start, so that it is taken for a whole one.
    writeFileSync(broken, bytes.subarray(0, Math.floor(bytes.length * 0.4)));
    const videoId = await bringFile(broken, 'none of them');
    for (const name of ['Marrow Quay', SHORT_POSTS]) await tickChannel(videoId, ids.get(name) ?? '', true);
    await editVideo(videoId, { privacy: 'private' });
    await untilSheet(videoId, ({ measured }) => measured !== 'waiting');
    await sendVideo(videoId);
    const sheet = await untilSheet(videoId, (now) => dropAt(now, SHORT_POSTS)?.state === 'snag');
    expect(dropAt(sheet, SHORT_POSTS)?.snag?.what).toBe(
      'The file for Pipwire could not be made: the file cannot be read to its end. Export it again',
    );
    expect(goingTo(sheet, SHORT_POSTS)?.state).toBe('failed');
    expect(left()).toEqual([]);
    await untilSheet(videoId, (now) => !['draft', 'packing', 'snag'].includes(dropAt(now, 'Marrow Quay')?.state ?? ''));
  });
});
