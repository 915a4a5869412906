import type { ChildProcess } from 'node:child_process';
import { createHash } from 'node:crypto';
import { once } from 'node:events';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { afterAll, afterEach, describe, expect, it } from 'vitest';
import { sendVideo } from '@/desk/drop/send';
import { lookAtSheet } from '@/desk/look/look-at-sheet';
import type { DropView } from '@/desk/look/views';
import { editVideo } from '@/desk/video/edit-video';
import { closeDatabase } from '@/store/database';
import { endProcess, processEnvironment, startProcess } from '../../bin/setup/processes.mjs';
import { makeClip } from '../setup/clips';
import { bringFile, onlyDrop, setFaults, untilState, videosAtLanternfold } from '../setup/desk';

const root = path.resolve('.');
let worker: ChildProcess;
const startWorker = () => {
  worker = startProcess(root, 'worker', processEnvironment(root));
};

afterEach(() => endProcess(worker));
afterAll(closeDatabase);

const clip = makeClip({ name: 'crash.mp4', seconds: 16, bitRate: '2000k' });
const digest = createHash('sha256').update(readFileSync(clip)).digest('hex');

type Moment = [name: string, is: (drop: DropView) => boolean];

/** Moments at which the worker is killed, each in the hands of a drop. */
const MOMENTS: Moment[] = [
  ['while it packs', (drop) => drop.state === 'packing'],
  ['when room has just been made', (drop) => drop.state === 'landing' && drop.link !== undefined],
  ['with some of the bytes over', (drop) => drop.state === 'landing' && drop.bytesSent > 1_000_000],
  ['with most of the bytes over', (drop) => drop.state === 'landing' && drop.bytesSent > 3_000_000],
  ['while the site processes', (drop) => drop.state === 'settling'],
];

describe('kill -9 of the worker', () => {
  it.each(MOMENTS)('%s: the drop goes on, and the site ends with one whole video', async (name, is) => {
    await setFaults({ kind: 'line', match: 'crash', bytes: 2_000_000 });
    startWorker();
    const videoId = await bringFile(clip, 'Marrow Quay', `crash-${name.replaceAll(' ', '-')}.mp4`);
    await editVideo(videoId, { privacy: 'everyone', summary: 'Killed and gone on' });
    await sendVideo(videoId);
    const deadline = Date.now() + 30_000;
    while (!is(onlyDrop(await lookAtSheet(videoId)))) {
      expect(Date.now(), 'the moment came').toBeLessThan(deadline);
      await pause(10);
    }
    worker.kill('SIGKILL');
    await once(worker, 'exit');
    startWorker();
    const drop = await untilState(videoId, 'live');
    const there = (await videosAtLanternfold()).filter((video) => String(video.key).startsWith(drop.id));
    expect(there).toHaveLength(1);
    expect(there[0]).toMatchObject({ file: { sha256: digest }, visibility: 'open', description: 'Killed and gone on' });
  });

  it('twice during one transfer: what is over is not sent again', async () => {
    await setFaults({ kind: 'line', match: 'crash', bytes: 1_500_000 });
    startWorker();
    const videoId = await bringFile(clip, 'Marrow Quay', 'crash-twice.mp4');
    await sendVideo(videoId);
    for (const bytes of [1_000_000, 2_400_000]) {
      while (onlyDrop(await lookAtSheet(videoId)).bytesSent < bytes) await pause(10);
      worker.kill('SIGKILL');
      await once(worker, 'exit');
      startWorker();
      // A worker that went on from the beginning would tell fewer bytes than the site has confirmed.
      await pause(4000);
      expect(onlyDrop(await lookAtSheet(videoId)).bytesSent).toBeGreaterThanOrEqual(bytes - 200_000);
    }
    await untilState(videoId, 'live');
  });
});
