import { afterEach, describe, expect, it } from 'vitest';
import { actOnDrop } from '@/desk/actions/act-on-drop';
import { sendVideo } from '@/desk/drop/send';
import { lookAtRestingSites, tryRestingSite } from '@/desk/site/resting-sites';
import { lookAtSheet } from '@/desk/views/look-at-sheet';
import { database } from '@/store/database';
import { noteSiteFailed, noteSiteWell, takeTrial } from '@/store/site/circuits';
import { makeClip } from '../setup/clips';
import {
  askedOf,
  bringFile,
  connectedChannels,
  forgetAsked,
  onlyDrop,
  setFaults,
  untilSheet,
  untilState,
} from '../setup/desk';
import { aWorker } from '../setup/worker';

aWorker();
const clip = makeClip({ name: 'circuit.mp4', seconds: 2 });

afterEach(async () => {
  await setFaults();
  await noteSiteWell(database(), 'lanternfold');
});

async function ready(fileName: string): Promise<string> {
  const videoId = await bringFile(clip, 'Marrow Quay', fileName);
  await untilSheet(videoId, ({ cut }) => cut?.state === 'ready');
  return videoId;
}

describe('a site that fails again and again', () => {
  it('is left alone by all, says since when, and is tried by one; then all go on', async () => {
    await connectedChannels();
    const ids = [await ready('rest-0.mp4'), await ready('rest-1.mp4'), await ready('rest-2.mp4')];
    await setFaults({ kind: 'answer', status: 503, retryAfter: 1, times: 1000, path: '/videos' });
    for (const id of ids) await sendVideo(id);
    await expect.poll(async () => (await lookAtRestingSites()).length).toBe(1);
    const [site] = await lookAtRestingSites();
    expect(site).toMatchObject({ id: 'lanternfold', name: 'Lanternfold' });
    expect(Date.parse(site?.nextTryAt ?? '')).toBeGreaterThan(Date.parse(site?.since ?? ''));
    await setFaults();
    // While it rests nobody asks, though it would answer again.
    await database()('circuits')
      .where({ site: 'lanternfold' })
      .update({ nextTryAt: new Date(Date.now() + 3_600_000) });
    await forgetAsked('lanternfold');
    await database()('drops')
      .whereIn('videoId', ids)
      .update({ nextTryAt: new Date(0) });
    // The worker takes what there is to do, and does other things.
    await ready('rest-meanwhile.mp4');
    expect(await askedOf('lanternfold')).toEqual([]);
    await tryRestingSite('lanternfold');
    for (const id of ids) await untilState(id, 'live');
    expect(await lookAtRestingSites()).toEqual([]);
  });

  it('is asked all the same, once, for what a person waits for', async () => {
    const videoId = await ready('rest-closed.mp4');
    await sendVideo(videoId);
    const { id } = await untilState(videoId, 'live');
    for (let n = 0; n < 12; n += 1) await noteSiteFailed('lanternfold', 'Lanternfold: it is away', 1);
    expect(await lookAtRestingSites()).toHaveLength(1);
    await actOnDrop(id, { action: 'remove' });
    await untilState(videoId, 'removed');
  });

  it('is tried by one worker only when its rest is over', async () => {
    for (let n = 0; n < 3; n += 1) await noteSiteFailed('stallmarket', 'away', 1);
    expect(await takeTrial(database(), 'stallmarket')).toBe(false);
    await database()('circuits')
      .where({ site: 'stallmarket' })
      .update({ nextTryAt: new Date(0) });
    const takers = await Promise.all(Array.from({ length: 5 }, () => takeTrial(database(), 'stallmarket')));
    expect(takers.filter(Boolean)).toHaveLength(1);
    await noteSiteWell(database(), 'stallmarket');
  });

  it('does not rest for two failures, nor for one video that it refuses', async () => {
    await noteSiteFailed('pipwire', 'away', 1);
    await noteSiteFailed('pipwire', 'away', 1);
    expect(await lookAtRestingSites()).toEqual([]);
    await noteSiteWell(database(), 'pipwire');
    const refused = await ready('rest-refused.mp4');
    await setFaults({ kind: 'answer', status: 422, times: 1, path: '/videos' });
    await sendVideo(refused);
    await untilState(refused, 'snag');
    expect(onlyDrop(await lookAtSheet(refused)).snag?.kind).toBe('refused');
    expect(await database()('circuits').where({ site: 'lanternfold' })).toEqual([]);
  });
});
