import { afterAll, afterEach, describe, expect, it } from 'vitest';
import { editVideo } from '@/desk/edit-video';
import { lookAtSheet } from '@/desk/look-at-sheet';
import { sendVideo } from '@/desk/send';
import { claimNext } from '@/store/claims';
import { closeDatabase, database } from '@/store/database';
import { makePicture } from '@/worker/make-picture';
import { readCut } from '@/worker/read-cut';
import { makeClip } from '../../setup/clips';
import { bringFile, onlyDrop } from '../../setup/desk';

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

const claimed = async (table: 'cuts' | 'pictureHabits', state: string) => {
  await database()(table).where({ state }).update({ nextTryAt: new Date(), leaseOwner: null, leaseUntil: null });
  return claimNext(database(), table, [state], 'whole-or-not', 30);
};

async function readOne(): Promise<void> {
  const claim = await claimed('cuts', 'reading');
  if (claim) await readCut(claim);
}

describe('what belongs together is written together', () => {
  it('a cut that is read is also to be measured, or it is read once more', async () => {
    const videoId = await bringFile(clip);
    await without('measurements');
    await readOne();
    await back();
    expect((await lookAtSheet(videoId)).cut?.state).toBe('reading');
    await readOne();
    expect(await lookAtSheet(videoId)).toMatchObject({ cut: { state: 'ready' }, measured: 'waiting' });
  });

  it('a drop that moves has its step in the history, or has not moved', async () => {
    const videoId = await bringFile(clip);
    while ((await lookAtSheet(videoId)).cut?.state === 'reading') await readOne();
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
    while ((await lookAtSheet(videoId)).cut?.state === 'reading') await readOne();
    await database()('pictureHabits').whereNot({ id: videoId }).update({ state: 'done' });
    await editVideo(videoId, { picture: { way: 'moment', at: { num: 1, den: 1 } } });
    const make = async () => {
      const claim = await claimed('pictureHabits', 'waiting');
      if (claim) await makePicture(claim);
    };
    await without('pictures');
    await make();
    await back();
    const row = await database()('pictureHabits').where({ id: videoId }).first('state', 'attempts');
    expect(row).toEqual({ state: 'waiting', attempts: 1 });
    await make();
    expect((await lookAtSheet(videoId)).picture?.byHabit).toBe(true);
  });
});
