import type { ChildProcess } from 'node:child_process';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { sendVideo } from '@/desk/drop/send';
import { lookAtSheet } from '@/desk/views/look-at-sheet';
import { closeDatabase, database } from '@/store/database';
import { claimDrops } from '@/store/drop/claims';
import { makeDrop } from '@/store/drop/drops';
import { claimRows } from '@/store/queue/claims';
import { makeVideo } from '@/store/record/videos';
import { endProcess, processEnvironment, startProcess } from '../../bin/setup/processes.mjs';
import { makeClip } from '../setup/clips';
import { addressOf, bringFile, connectedChannels, onlyDrop, untilState } from '../setup/desk';
import { newVideo } from '../setup/new-video';

const root = path.resolve('.');
const clip = makeClip({ name: 'workers.mp4', seconds: 2 });
const workers: ChildProcess[] = [];

beforeAll(connectedChannels);
afterAll(async () => {
  await Promise.all(workers.map((worker) => endProcess(worker)));
  await closeDatabase();
});

/** Videos, each with a drop in this state on one channel; nothing of them is at a site. */
async function videosWithDrops(count: number, state: 'clearing' | 'landing'): Promise<string[]> {
  const channelId = [...(await connectedChannels()).values()][0] ?? '';
  const made: string[] = [];
  for (let n = 0; n < count; n += 1) {
    const videoId = await makeVideo(database(), newVideo(`claimed ${n}`));
    await makeDrop(database(), videoId, channelId);
    made.push(videoId);
  }
  await database()('drops').whereIn('videoId', made).update({ state });
  return made;
}

describe('three workers on one database', () => {
  it('never have a drop in two hands, however they ask', async () => {
    const made = await videosWithDrops(24, 'clearing');
    const choice = { states: ['clearing'] as const, most: 4, resting: [], firstTryAlways: false };
    const ask = async (worker: string): Promise<string[]> => {
      const taken: string[] = [];
      for (let idle = 0; idle < 3; ) {
        const claims = await claimDrops(worker, 60, choice);
        idle = claims.length === 0 ? idle + 1 : 0;
        taken.push(...claims.map(({ id }) => id));
      }
      return taken;
    };
    const taken = (await Promise.all(['one', 'two', 'three'].map(ask))).flat();
    const ours: { id: string }[] = await database()('drops').whereIn('videoId', made).select('id');
    const each = taken.filter((id) => ours.some((drop) => drop.id === id));
    expect(each).toHaveLength(24);
    expect(new Set(each).size).toBe(24);
    await database()('videos').whereIn('id', made).delete();
  });

  it('take nothing that has moved on since it was read, though it is due in another state', async () => {
    const [one = '', two = ''] = await videosWithDrops(2, 'clearing');
    await database()('drops').where({ videoId: two }).update({ state: 'landing' });
    const rows = await database()('drops').whereIn('videoId', [one, two]).select('id', 'videoId');
    const idOf = (videoId: string): string => rows.find((row) => row.videoId === videoId)?.id ?? '';
    const read = [
      { id: idOf(one), state: 'landing' },
      { id: idOf(two), state: 'landing' },
      { id: 'nowhere', state: 'clearing' },
    ];
    const claims = await claimRows('drops', async () => read, 'one', 60);
    expect(claims.map(({ id }) => id)).toEqual([idOf(two)]);
    await database()('videos').whereIn('id', [one, two]).delete();
  });

  it('take no more of one channel at a time than it may have', async () => {
    const videoIds = await videosWithDrops(9, 'landing');
    const choice = { states: ['landing'] as const, most: 8, resting: [], firstTryAlways: false, mostOfChannel: 4 };
    expect(await claimDrops('one', 60, choice)).toHaveLength(4);
    expect(await claimDrops('two', 60, choice)).toHaveLength(0);
    await database()('videos').whereIn('id', videoIds).delete();
  });

  it('carry each drop once, each step once, each byte once', async () => {
    for (let n = 0; n < 3; n += 1) workers.push(startProcess(root, 'worker', processEnvironment(root)));
    const names = Array.from({ length: 8 }, (_, n) => `workers-${n}.mp4`);
    const ids = await Promise.all(names.map((name, n) => bringFile(clip, n % 2 ? 'Marrow Quay' : 'Tide Notes', name)));
    await expect
      .poll(async () => (await Promise.all(ids.map(lookAtSheet))).every(({ cut }) => cut?.state === 'ready'))
      .toBe(true);
    await Promise.all(ids.map((id) => sendVideo(id)));
    for (const id of ids) {
      const drop = await untilState(id, 'live');
      const { events } = (await lookAtSheet(id)).channels.find(({ drop: found }) => found?.id === drop.id) ?? {};
      const kinds = events?.map(({ kind }) => kind).filter((kind) => kind !== 'waits');
      expect(kinds).toEqual(['send', 'packed', 'landed', 'settled', 'cleared', 'proofedAndOpening', 'opened']);
      expect(onlyDrop(await lookAtSheet(id)).id).toBe(drop.id);
    }
    const passed = (await (await fetch(`${addressOf('lanternfold')}/control/passed`)).json()) as Record<string, number>;
    const { length } = readFileSync(clip);
    expect(names.map((name) => passed[name])).toEqual(names.map(() => length));
  });
});
