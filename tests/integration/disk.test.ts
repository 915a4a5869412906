import { existsSync } from 'node:fs';
import { beforeAll, describe, expect, it } from 'vitest';
import { bringLocalFile } from '@/desk/cut/bring-local-file';
import { frameOfCut, openCut } from '@/desk/cut/play-cut';
import { reviseVideo, sendVideo } from '@/desk/drop/send';
import { deleteFromDisk, lookAtDisk } from '@/desk/house/disk';
import { tidyUp } from '@/desk/house/tidy-up';
import { editVideo, tickChannel } from '@/desk/video/edit-video';
import { lookAtSheet } from '@/desk/views/look-at-sheet';
import type { SheetView } from '@/desk/views/views';
import { database } from '@/store/database';
import { largestOnDisk } from '@/store/files/disk-use';
import { files } from '@/store/files/folder';
import { cutById } from '@/store/record/cuts';
import { makeClip } from '../setup/clips';
import { bringFile, channelsOfTheYard, untilSheet } from '../setup/desk';
import { aWorker } from '../setup/worker';

aWorker();
let ids: Map<string, string>;
beforeAll(async () => {
  ids = await channelsOfTheYard();
});

const clip = makeClip({ name: 'disk.mp4', seconds: 3 });
const isLive = (name: string) => (sheet: SheetView) =>
  sheet.channels.find((each) => each.name === name)?.drop?.state === 'live';

/** A video that is live on one channel, in a shape that a file was made for. */
async function live(fileName: string): Promise<string> {
  const videoId = await bringFile(clip, 'Marrow Quay', fileName);
  await editVideo(videoId, { privacy: 'private', file: { way: 'set', set: 'square' } });
  await sendVideo(videoId);
  await untilSheet(videoId, (sheet) => isLive('Marrow Quay')(sheet) && sheet.measured === 'ready');
  return videoId;
}

const fileOf = async (videoId: string) => {
  const cut = await cutById(database(), (await lookAtSheet(videoId)).cut?.id ?? '');
  return files().localPath(cut?.fileKey ?? '');
};

/** Of all videos that there are: others may take more. */
const useOf = async (videoId: string) =>
  (await largestOnDisk(database(), 100_000)).find((use) => use.videoId === videoId);

describe('what videos take of the disk', () => {
  it('is said from the largest on, with what is free', async () => {
    await live('said.mp4');
    const { free, files: all, made, videos, largest } = await lookAtDisk();
    const sizes = largest.map((use) => use.files + use.made);
    expect(sizes).toEqual([...sizes].sort((a, b) => b - a));
    expect(largest.length).toBeLessThanOrEqual(50);
    expect(all + made).toBeGreaterThanOrEqual(sizes.reduce((sum, size) => sum + size, 0));
    expect(videos).toBeGreaterThanOrEqual(largest.filter((use) => use.files > 0).length);
    expect(free).toBeGreaterThan(0);
  });

  it('is listed, and what was made for sites is deleted by hand', async () => {
    const videoId = await live('made-goes.mp4');
    const here = () => useOf(videoId);
    const before = await here();
    const sheet = await lookAtSheet(videoId);
    expect(before).toMatchObject({ files: sheet.cut?.size, made: sheet.renditions[0]?.size, drops: 1, notLive: 0 });
    await deleteFromDisk({ videoId, what: 'made' });
    expect(await here()).toMatchObject({ files: sheet.cut?.size, made: 0 });
    expect((await lookAtSheet(videoId)).renditions[0]?.state).toBe('gone');
  });

  it('is kept while a channel still waits for it', async () => {
    const videoId = await live('still-needed.mp4');
    await tickChannel(videoId, ids.get('Marrow Quay Films') ?? '', true);
    expect(await useOf(videoId)).toMatchObject({ drops: 2, notLive: 1 });
    await expect(deleteFromDisk({ videoId, what: 'files' })).rejects.toThrow('still needed');
    await editVideo(videoId, { deleteFile: true });
    await tidyUp();
    expect(existsSync(await fileOf(videoId))).toBe(true);
  });

  it('goes by a habit once all is live; words still go out, and the file is added again to send it elsewhere', async () => {
    const videoId = await live('file-goes.mp4');
    const file = await fileOf(videoId);
    await tidyUp();
    expect(existsSync(file)).toBe(true);
    await editVideo(videoId, { deleteFile: true });
    await tidyUp();
    expect(existsSync(file)).toBe(false);
    const { cut } = await lookAtSheet(videoId);
    expect(cut).toMatchObject({ gone: true, state: 'ready' });
    await expect(openCut(cut?.id ?? '')).rejects.toThrow('deleted here');
    await expect(frameOfCut(cut?.id ?? '', { num: 1, den: 1 })).rejects.toThrow('deleted here');
    expect(await useOf(videoId)).toMatchObject({ files: 0 });

    await editVideo(videoId, { title: 'Said better' });
    expect((await reviseVideo(videoId)).sent).toEqual(['Marrow Quay']);
    await untilSheet(
      videoId,
      (now) => isLive('Marrow Quay')(now) && now.channels.every((each) => each.changes.length === 0),
    );

    await tickChannel(videoId, ids.get('Marrow Quay Films') ?? '', true);
    const { notReady } = await sendVideo(videoId);
    expect(notReady[0]?.missing).toContain('The file was deleted here once it was live. Add it again');
    await bringLocalFile(clip, { fileName: 'file-goes.mp4', videoId });
    const back = await untilSheet(videoId, (now) => now.cut?.gone === false && now.cut.state === 'ready');
    // It was added to be sent: the habit leaves it alone until that is done.
    await untilSheet(videoId, ({ measured }) => measured === 'ready');
    await tickChannel(videoId, ids.get('Marrow Quay Films') ?? '', false);
    await tidyUp();
    expect((await lookAtSheet(videoId)).cut?.gone).toBe(false);
    await tickChannel(videoId, ids.get('Marrow Quay Films') ?? '', true);
    expect(back.channels.find(({ name }) => name === 'Marrow Quay')?.drop?.otherFile).toBe(false);
    expect((await sendVideo(videoId)).sent).toEqual(['Marrow Quay Films']);
    await untilSheet(videoId, isLive('Marrow Quay Films'));
    await tidyUp();
    expect((await lookAtSheet(videoId)).cut?.gone).toBe(true);
  });
});
