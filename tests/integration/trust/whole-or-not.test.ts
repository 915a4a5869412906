import { afterAll, afterEach, describe, expect, it } from 'vitest';
import { noteCutArrived } from '@/desk/cut/bring-cut';
import { sendVideo } from '@/desk/drop/send';
import { discardVideo } from '@/desk/video/delete-video';
import { editVideo } from '@/desk/video/edit-video';
import { lookAtSheet } from '@/desk/views/look-at-sheet';
import { closeDatabase, database } from '@/store/database';
import { makeClip } from '../../setup/clips';
import { announcedCut, bringFile, onlyDrop } from '../../setup/desk';
import { jobOn, workOn, workOnAll } from '../../setup/jobs';

const clip = makeClip({ name: 'whole.mp4', seconds: 2 });
let away: string | undefined;

/** Takes a table away, so that whatever writes to it fails as it would where the database is gone in the middle. */
async function without(table: string): Promise<void> {
  away = table;
  await database().schema.renameTable(table, `${table}_away`);
}
async function back(): Promise<void> {
  if (away) await database().schema.renameTable(`${away}_away`, away);
  away = undefined;
}
afterEach(back);
afterAll(closeDatabase);

describe('what belongs together is written together', () => {
  it('a cut that is read is also to be measured, or it is read once more', async () => {
    const videoId = await bringFile(clip);
    const { cut } = await lookAtSheet(videoId);
    await without('measurements');
    await workOn('read', cut?.id ?? '');
    await back();
    expect((await lookAtSheet(videoId)).cut?.state).toBe('reading');
    await workOn('read', cut?.id ?? '');
    expect(await lookAtSheet(videoId)).toMatchObject({ cut: { state: 'ready' }, measured: 'waiting' });
  });

  it('a file that has come has a job that reads it, or is still on its way', async () => {
    const { id, videoId } = await announcedCut({ fileName: 'whole-or-not.mp4', size: 4 });
    await without('jobs');
    await expect(noteCutArrived(id, 4)).rejects.toThrow(/jobs/);
    await back();
    expect((await lookAtSheet(videoId)).cut?.state).toBe('arriving');
    await noteCutArrived(id, 4);
    expect(await jobOn('read', id)).toMatchObject({ state: 'waiting' });
    await discardVideo(videoId);
  });

  it('a drop that moves has its step in the history, or has not moved', async () => {
    const videoId = await bringFile(clip);
    await workOnAll('read');
    await without('drop_events');
    await expect(sendVideo(videoId)).rejects.toThrow(/drop_events/);
    await back();
    const sheet = await lookAtSheet(videoId);
    expect(onlyDrop(sheet).state).toBe('draft');
    expect((await sendVideo(videoId)).sent).toEqual(['Marrow Quay']);
    const { events } = (await lookAtSheet(videoId)).channels.find(({ drop }) => drop) ?? {};
    expect(events?.map(({ kind }) => kind)).toEqual(['send']);
  });

  it('a picture that could not be made by chance is made later, and not given up', async () => {
    const videoId = await bringFile(clip);
    await workOnAll('read');
    await editVideo(videoId, { picture: { way: 'moment', at: { num: 1, den: 1 } } });
    await without('pictures');
    expect(await workOn('picture', videoId)).toMatchObject({ state: 'waiting', attempts: 1 });
    await back();
    expect(await workOn('picture', videoId)).toMatchObject({ state: 'done' });
    expect((await lookAtSheet(videoId)).picture?.byHabit).toBe(true);
  });
});
