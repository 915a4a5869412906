import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { redo, undo } from '@/desk/changes/changes';
import { bringLocalFile } from '@/desk/cut/bring-local-file';
import { editDefaults } from '@/desk/defaults/defaults';
import { sendVideo } from '@/desk/drop/send';
import { askToDelete } from '@/desk/video/delete-video';
import { editVideo, tickChannel } from '@/desk/video/edit-video';
import { lookAtSheet } from '@/desk/views/look-at-sheet';
import type { SheetChannel, SheetView } from '@/desk/views/views';
import { database } from '@/store/database';
import { makeClip } from '../setup/clips';
import { channelsOfTheYard, setFaultsAt, untilSheet, videosAt } from '../setup/desk';
import { aWorker } from '../setup/worker';

const worker = aWorker();
let ids: Map<string, string>;
const EARLY = ['Marrow Quay', 'Marrow Quay Films', '@marrowquay', 'Marrow Quay Tools'];
const clip = makeClip({ name: 'early-12m.mp4', seconds: 3, bitRate: '12M' });
const other = makeClip({ name: 'early-other.mp4', seconds: 4, bitRate: '2M' });

beforeAll(async () => {
  ids = await channelsOfTheYard();
  for (const name of EARLY) {
    await editDefaults({ layer: 'channel', owner: ids.get(name) }, { uploadEarly: true });
  }
});
// Other tests bring files to the same channels.
afterAll(async () => {
  for (const name of EARLY) {
    await editDefaults({ layer: 'channel', owner: ids.get(name) }, { uploadEarly: null });
  }
});
afterEach(() => Promise.all(['lanternfold', 'fieldgate'].map((site) => setFaultsAt(site))));

/** More than the buffers of a line take at once. */
const large = makeClip({ name: 'early-large.mp4', seconds: 10, bitRate: '12M' });

let files = 0;
/** A new video of a file with a name of its own, ticked before it is read. */
async function brought(channels: readonly string[], file = clip): Promise<{ videoId: string; fileName: string }> {
  files += 1;
  const fileName = `early_words-${files}.mp4`;
  const { videoId } = await bringLocalFile(file, { fileName, anyway: true });
  for (const name of channels) await tickChannel(videoId, ids.get(name) ?? '', true);
  return { videoId, fileName };
}

const on = (sheet: SheetView, name: string) => sheet.channels.find((each) => each.name === name) as SheetChannel;
const isThere = (name: string) => (sheet: SheetView) => on(sheet, name).early?.state === 'there';
const at = async (site: string, fileName: string) =>
  (await videosAt(site)).filter((video) => video.fileName === fileName);

describe('a file that goes up before its words', () => {
  it.each([
    ['Marrow Quay', 'lanternfold', 'visibility', 'closed'],
    ['Marrow Quay Films', 'fieldgate', 'audience', 'me'],
    ['@marrowquay', 'pipwire', 'out', false],
  ])('lies closed on %s under its name, and is what is sent then', async (name, site, field, closed) => {
    const { videoId, fileName } = await brought([name]);
    const early = await untilSheet(videoId, isThere(name));
    expect(on(early, name).drop?.state).toBe('draft');
    expect(on(early, name).early?.link).toMatch(/^http/);
    const [before] = await at(site, fileName);
    expect(before?.[field]).toBe(closed);
    if (name !== '@marrowquay') expect(JSON.stringify(before)).toContain(`"${fileName.replace('.mp4', '')}"`);
    // Words that are missing keep it from being sent.
    if (name === 'Marrow Quay') expect((await sendVideo(videoId)).sent).toEqual([]);
    await editVideo(videoId, { forChildren: false, privacy: 'everyone', title: 'With its words' });
    expect((await sendVideo(videoId)).sent).toEqual([name]);
    const live = await untilSheet(videoId, (sheet) => on(sheet, name).drop?.state === 'live');
    expect(on(live, name)).toMatchObject({ early: undefined, drop: { link: on(early, name).early?.link } });
    const there = await at(site, fileName);
    expect(there).toHaveLength(1);
    expect(there[0]).toMatchObject({ id: before?.id });
    expect(await database()('earlyUploads').where({ videoId })).toEqual([]);
  });

  it('does not go to a site that opens by itself', async () => {
    const { videoId, fileName } = await brought(['Marrow Quay Tools', 'Marrow Quay']);
    await untilSheet(videoId, isThere('Marrow Quay'));
    expect(on(await lookAtSheet(videoId), 'Marrow Quay Tools').early).toBeUndefined();
    expect(await at('stallmarket', fileName)).toEqual([]);
  });

  it('is removed there when its channel is unticked, and goes up again when that is undone', async () => {
    const { videoId, fileName } = await brought(['Marrow Quay']);
    await untilSheet(videoId, isThere('Marrow Quay'));
    await tickChannel(videoId, ids.get('Marrow Quay') ?? '', false);
    await expect.poll(() => at('lanternfold', fileName)).toEqual([]);
    await undo(videoId);
    await untilSheet(videoId, isThere('Marrow Quay'));
    await redo(videoId);
    await expect.poll(() => at('lanternfold', fileName)).toEqual([]);
    await expect.poll(() => database()('earlyUploads').where({ videoId })).toEqual([]);
  });

  it('is removed with its video', async () => {
    const { videoId, fileName } = await brought(['Marrow Quay']);
    await untilSheet(videoId, isThere('Marrow Quay'));
    expect(await askToDelete(videoId)).toBe(true);
    await expect.poll(() => at('lanternfold', fileName)).toEqual([]);
    await expect.poll(() => database()('earlyUploads').where({ videoId })).toEqual([]);
  });

  it('goes on from where it is when it is sent half way, also after the worker was killed', async () => {
    await setFaultsAt('lanternfold', { kind: 'line', match: 'early_words', bytes: 100_000 });
    const { videoId, fileName } = await brought(['Marrow Quay'], large);
    const half = (sheet: SheetView) => (on(sheet, 'Marrow Quay').early?.progress?.fraction ?? 0) > 0.2;
    await untilSheet(videoId, half);
    await worker.end('SIGKILL');
    worker.start();
    await untilSheet(videoId, half);
    await editVideo(videoId, { forChildren: false, privacy: 'private' });
    await sendVideo(videoId);
    const kept = await database()('drops').where({ videoId }).first('bytesSent');
    expect(Number(kept.bytesSent)).toBeGreaterThan(0);
    await setFaultsAt('lanternfold');
    await untilSheet(videoId, (sheet) => on(sheet, 'Marrow Quay').drop?.state === 'live');
    expect(await at('lanternfold', fileName)).toHaveLength(1);
  });

  it('goes on by itself after a line that breaks, again and again, and says why it waits', async () => {
    const broken = { kind: 'cut', match: 'early_words', bytes: 400_000 };
    await setFaultsAt('lanternfold', broken);
    const { videoId } = await brought(['Marrow Quay'], large);
    await untilSheet(videoId, (sheet) => on(sheet, 'Marrow Quay').early?.trouble !== undefined);
    expect(on(await lookAtSheet(videoId), 'Marrow Quay').early).toMatchObject({
      state: 'going up',
      trouble: expect.stringContaining('Lanternfold'),
    });
    await setFaultsAt('lanternfold');
    await database()('jobs')
      .where({ kind: 'early', state: 'waiting' })
      .update({ nextTryAt: new Date(0) });
    await untilSheet(videoId, isThere('Marrow Quay'));
  });

  it('gives way to what is to go out: other settings, or a better file; what went up before is removed', async () => {
    const { videoId, fileName } = await brought(['Marrow Quay']);
    await untilSheet(videoId, isThere('Marrow Quay'));
    const [first] = await at('lanternfold', fileName);
    await editVideo(videoId, { forChildren: false, privacy: 'private', file: { way: 'set', set: 'square' } });
    await sendVideo(videoId);
    const sheet = await untilSheet(videoId, (now) => on(now, 'Marrow Quay').drop?.state === 'live');
    expect(sheet.renditions[0]?.says).toContain('H.264 180×180');
    const there = await at('lanternfold', fileName);
    expect(there).toHaveLength(1);
    expect(there[0]?.id).not.toBe(first?.id);

    const better = await brought(['Marrow Quay']);
    await untilSheet(better.videoId, isThere('Marrow Quay'));
    const name = `better-${better.fileName}`;
    await bringLocalFile(other, { fileName: name, videoId: better.videoId, anyway: true });
    await untilSheet(better.videoId, (now) => now.cut?.fileName === name && isThere('Marrow Quay')(now));
    await expect.poll(() => at('lanternfold', better.fileName)).toEqual([]);
    await expect.poll(() => at('lanternfold', name)).toHaveLength(1);
    // Undone, the file from before goes up once more.
    await undo(better.videoId);
    await expect.poll(() => at('lanternfold', name)).toEqual([]);
    await expect.poll(() => at('lanternfold', better.fileName)).toHaveLength(1);
  });
});
