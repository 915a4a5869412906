import type { ChildProcess } from 'node:child_process';
import { createHash } from 'node:crypto';
import { once } from 'node:events';
import { readFileSync, statSync } from 'node:fs';
import path from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { afterAll, afterEach, describe, expect, it } from 'vitest';
import { actOnDrop } from '@/desk/actions/act-on-drop';
import { sendVideo } from '@/desk/drop/send';
import { editVideo } from '@/desk/video/edit-video';
import { closeDatabase, database } from '@/store/database';
import type { Drop } from '@/store/drop/shape';
import { endProcess, processEnvironment, startProcess } from '../../bin/setup/processes.mjs';
import { makeClip } from '../setup/clips';
import { addressOf, bringFile, setFaults, untilState, videosAtLanternfold } from '../setup/desk';
import { PATIENCE } from '../setup/patience';

const root = path.resolve('.');
let worker: ChildProcess;
const startWorker = () => {
  worker = startProcess(root, 'worker', processEnvironment(root));
};

afterEach(async () => {
  await endProcess(worker);
  await setFaults();
});
afterAll(closeDatabase);

const clip = makeClip({ name: 'crash.mp4', seconds: 16, bitRate: '2000k' });
const short = makeClip({ name: 'crash-short.mp4', seconds: 2 });
const sha256 = (file: string) => createHash('sha256').update(readFileSync(file)).digest('hex');
const digest = sha256(clip);

type Moment = [name: string, is: (drop: DropRow) => boolean];
type DropRow = Pick<Drop, 'state' | 'link' | 'bytesSent'>;

/** Moments at which the worker is killed, each in the hands of a drop. */
const MOMENTS: Moment[] = [
  ['while it packs', ({ state }) => state === 'packing'],
  ['when room has just been made', ({ state, link }) => state === 'landing' && link !== null],
  ['with some of the bytes over', ({ state, bytesSent }) => state === 'landing' && bytesSent > 1_000_000],
  ['while the site processes', ({ state }) => state === 'settling'],
];

/** Every answer takes so long that each moment can be seen. */
const SLOWED = { kind: 'late', path: '/api/videos', seconds: 0.4 };

const dropOf = async (videoId: string): Promise<string> =>
  (await database()('drops').where({ videoId }).first('id')).id;

/** Kills the worker as soon as its drop is as wished. */
async function killedWhen(dropId: string, is: (drop: DropRow) => boolean): Promise<void> {
  const row = async (): Promise<DropRow> =>
    database()('drops').where({ id: dropId }).first('state', 'link', 'bytesSent');
  const end = Date.now() + PATIENCE;
  for (let drop = await row(); !is(drop); drop = await row()) {
    if (Date.now() > end) throw new Error(`It never came to that; it is ${drop.state}`);
    await pause(10);
  }
  worker.kill('SIGKILL');
  await once(worker, 'exit');
}

describe('kill -9 of the worker', () => {
  it.each(MOMENTS)('%s: the drop goes on, and the site ends with one whole video', async (name, is) => {
    await setFaults({ kind: 'line', match: 'crash', bytes: 1_200_000 }, { ...SLOWED, seconds: 0.1 });
    startWorker();
    const videoId = await bringFile(clip, 'Marrow Quay', `crash-${name.replaceAll(' ', '-')}.mp4`);
    await editVideo(videoId, { privacy: 'everyone', summary: 'Killed and gone on' });
    await Promise.all([killedWhen(await dropOf(videoId), is), sendVideo(videoId)]);
    startWorker();
    const drop = await untilState(videoId, 'live');
    const there = (await videosAtLanternfold()).filter((video) => String(video.key).startsWith(drop.id));
    expect(there).toHaveLength(1);
    expect(there[0]).toMatchObject({ file: { sha256: digest }, visibility: 'open', description: 'Killed and gone on' });
  });

  it.each(['clearing', 'proofing', 'opening'] as const)('while it is %s: it goes on, once', async (state) => {
    startWorker();
    const fileName = `short-${state}.mp4`;
    const videoId = await bringFile(short, 'Marrow Quay', fileName);
    await editVideo(videoId, { privacy: 'everyone', release: 'by itself' });
    await setFaults(SLOWED);
    await Promise.all([killedWhen(await dropOf(videoId), (drop) => drop.state === state), sendVideo(videoId)]);
    await setFaults();
    startWorker();
    await untilState(videoId, 'live');
    const there = (await videosAtLanternfold()).filter((video) => video.fileName === fileName);
    expect(there).toHaveLength(1);
    expect(there[0]).toMatchObject({ file: { sha256: sha256(short) }, visibility: 'open' });
  });

  it('while it is closed, and while it is removed: it ends as was asked', async () => {
    startWorker();
    const videoId = await bringFile(short, 'Marrow Quay', 'asked.mp4');
    await editVideo(videoId, { privacy: 'everyone', release: 'by itself' });
    await sendVideo(videoId);
    const { id } = await untilState(videoId, 'live');
    const there = async () => (await videosAtLanternfold()).filter(({ fileName }) => fileName === 'asked.mp4');
    await setFaults(SLOWED);
    await actOnDrop(id, { action: 'close' });
    await killedWhen(id, ({ state }) => state === 'closing');
    startWorker();
    await untilState(videoId, 'live');
    expect(await there()).toMatchObject([{ visibility: 'closed' }]);
    await actOnDrop(id, { action: 'remove' });
    await killedWhen(id, ({ state }) => state === 'removing');
    startWorker();
    await untilState(videoId, 'removed');
    expect(await there()).toEqual([]);
  });

  it('twice during one transfer: what is over is not sent again', async () => {
    await setFaults({ kind: 'line', match: 'crash', bytes: 1_500_000 });
    startWorker();
    const videoId = await bringFile(clip, 'Marrow Quay', 'crash-twice.mp4');
    await sendVideo(videoId);
    const id = await dropOf(videoId);
    for (const bytes of [1_000_000, 2_400_000]) {
      await killedWhen(id, ({ bytesSent }) => bytesSent >= bytes);
      startWorker();
    }
    await untilState(videoId, 'live');
    const passed = (await (await fetch(`${addressOf('lanternfold')}/control/passed`)).json()) as Record<string, number>;
    const size = statSync(clip).size;
    // From the beginning each time, it would be 3.4 MB more. What was on the line in a buffer may come twice.
    expect(passed['crash-twice.mp4']).toBeGreaterThanOrEqual(size);
    expect(passed['crash-twice.mp4']).toBeLessThan(size + 600_000);
  });
});
