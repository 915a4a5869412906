import { afterEach, beforeAll, describe, expect, it } from 'vitest';
import { momentAt } from '@/core/release';
import { actOnDrop } from '@/desk/actions/act-on-drop';
import { sendVideo } from '@/desk/drop/send';
import { site } from '@/desk/site/session';
import { lookAtSheet } from '@/desk/views/look-at-sheet';
import { database } from '@/store/database';
import { makeClip } from '../../setup/clips';
import {
  askedOf,
  changedAt,
  channelsOfTheYard,
  forgetAsked,
  onlyDrop,
  readVideo,
  setFaultsAt,
  untilState,
  yardSession,
} from '../../setup/desk';
import { aWorker } from '../../setup/worker';

// What is held is looked at together, so often that nobody finds it open by accident for long.

const worker = aWorker({ KETTLE_WATCH_SECONDS: '1' });
const clip = makeClip({ name: 'watched.mp4', seconds: 2 });
const FAR = {
  ...{ privacy: 'everyone', release: 'at a time' },
  opensAt: momentAt(new Date((Math.ceil(Date.now() / 1000) + 200_000) * 1000), 'Europe/Berlin'),
};
const WORD = { privacy: 'everyone', release: 'on my word' };
const SITES = { lanternfold: 'Marrow Quay', fieldgate: 'Marrow Quay Films' };
const NAMED = {
  'left.mp4': ['lanternfold', FAR],
  'opened.mp4': ['lanternfold', FAR],
  'moved.mp4': ['lanternfold', FAR],
  'matched.mp4': ['lanternfold', WORD],
  'gone.mp4': ['lanternfold', WORD],
  'left-there.mp4': ['fieldgate', FAR],
  'opened-there.mp4': ['fieldgate', WORD],
} as const;
const ids = {} as Record<keyof typeof NAMED, string>;
const stateOf = async (name: keyof typeof NAMED) => onlyDrop(await lookAtSheet(ids[name])).state;
const snagOf = async (name: keyof typeof NAMED) => (await untilState(ids[name], 'snag')).snag;

beforeAll(async () => {
  await channelsOfTheYard();
  for (const [name, [siteId, wished]] of Object.entries(NAMED) as [keyof typeof NAMED, (typeof NAMED)['left.mp4']][]) {
    ids[name] = await readVideo(clip, name, { ...wished, title: name.replace('.mp4', '') }, SITES[siteId]);
    expect((await sendVideo(ids[name])).notReady).toEqual([]);
  }
  for (const id of Object.values(ids)) await untilState(id, 'held');
});
afterEach(async () => {
  for (const siteId of Object.keys(SITES)) await setFaultsAt(siteId);
});

/** What a site was asked by GET within two rounds, by paths. */
async function askedInTwoRounds(siteId: string, together: string): Promise<string[]> {
  await forgetAsked(siteId);
  const looks = async () => (await askedOf(siteId)).filter(({ path }) => path === together).length;
  await expect.poll(looks).toBeGreaterThanOrEqual(2);
  return (await askedOf(siteId)).map(({ method, path }) => `${method} ${path}`);
}

describe('what is held', () => {
  it('is looked at in one request for all of a channel, and nothing else is asked while it is as it was left', async () => {
    for (const name of ['left.mp4', 'matched.mp4', 'left-there.mp4'] as const) expect(await stateOf(name)).toBe('held');
    expect(new Set(await askedInTwoRounds('lanternfold', '/api/videos'))).toEqual(new Set(['GET /api/videos']));
    expect(new Set(await askedInTwoRounds('fieldgate', '/v2/works'))).toEqual(new Set(['GET /v2/works']));
  });

  it('is told of when somebody has opened it there, without its own look being due', async () => {
    // That its site cannot tell of another keeps nobody from hearing of it.
    const { siteVideoId } = await database()('drops').where({ videoId: ids['left.mp4'] }).first('siteVideoId');
    await setFaultsAt('lanternfold', { kind: 'answer', status: 500, path: siteVideoId });
    await changedAt('lanternfold', 'opened.mp4', { visibility: 'open', publishedAt: new Date().toISOString() });
    await changedAt('fieldgate', 'opened-there.mp4', { audience: 'public' });
    expect(await snagOf('opened.mp4')).toMatchObject({ what: 'Somebody has opened it to everyone on Lanternfold' });
    expect(await snagOf('opened-there.mp4')).toMatchObject({ what: 'Somebody has opened it to everyone on Fieldgate' });
    expect([await stateOf('left.mp4'), await stateOf('left-there.mp4')]).toEqual(['held', 'held']);
  });

  it('is left to whoever has just asked its site for something, which may come late', async () => {
    const drops = () => database()('drops').where({ videoId: ids['left-there.mp4'] });
    const before = (await drops().first('nextTryAt')).nextTryAt;
    const asking = [{ aim: 'private', at: new Date().toISOString(), key: 'on its way' }];
    await drops().update({ asking: JSON.stringify(asking) });
    await changedAt('fieldgate', 'left-there.mp4', { audience: 'public' });
    await askedInTwoRounds('fieldgate', '/v2/works');
    expect(await stateOf('left-there.mp4')).toBe('held');
    expect((await drops().first('nextTryAt')).nextTryAt).toEqual(before);
    await changedAt('fieldgate', 'left-there.mp4', { audience: 'me' });
    await drops().update({ asking: null });
  });

  it('is told of when its time was changed, a rights match was found, or it is gone', async () => {
    // That no answer came to something long ago keeps it from nothing.
    const asking = JSON.stringify([{ aim: 'private', at: new Date(Date.now() - 3_600_000).toISOString(), key: 'old' }]);
    await database()('drops').where({ videoId: ids['moved.mp4'] }).update({ asking });
    await changedAt('lanternfold', 'moved.mp4', { opensAt: new Date(Date.now() + 600_000).toISOString() });
    const match = { id: 'm1', owner: 'Harbour Lane Music', work: 'Slow Tide', from: 0, to: 1, wants: 'share' };
    await changedAt('lanternfold', 'matched.mp4', { matches: [{ ...match, state: 'open' }], checks: 'matched' });
    const { siteVideoId } = await database()('drops').where({ videoId: ids['gone.mp4'] }).first('siteVideoId');
    await site('lanternfold').remove(await yardSession('lanternfold'), siteVideoId);
    expect(await snagOf('moved.mp4')).toMatchObject({
      what: 'Somebody has changed the time at which Lanternfold opens it',
    });
    expect(await snagOf('matched.mp4')).toMatchObject({ kind: 'rights', asks: 'income' });
    expect(await snagOf('gone.mp4')).toMatchObject({ kind: 'missing' });
  });

  it('is not asked about again and again where its site refuses the look', async () => {
    await setFaultsAt('fieldgate', { kind: 'answer', status: 503, path: '/v2/works?' });
    await forgetAsked('fieldgate');
    const asked = async () => (await askedOf('fieldgate')).length;
    await expect.poll(asked).toBe(1);
    // It rests for a minute, not for a second.
    const drop = await database()('drops').where({ videoId: ids['left-there.mp4'] }).first('channelId');
    const subject = drop.channelId;
    const job = () => database()('jobs').where({ kind: 'watch held', subject }).first('nextTryAt', 'leaseUntil');
    await expect.poll(async () => (await job())?.leaseUntil).toBeNull();
    expect((await job())?.nextTryAt.getTime()).toBeGreaterThan(Date.now() + 30_000);
    expect(await asked()).toBe(1);
    expect(await stateOf('left-there.mp4')).toBe('held');
  });

  it('opens by a word as before', async () => {
    expect(worker.isRunning()).toBe(true);
    const { id } = onlyDrop(await lookAtSheet(ids['left.mp4']));
    await actOnDrop(id, { action: 'open' });
    await untilState(ids['left.mp4'], 'live');
  });
});
