import { type ChildProcess, execFileSync } from 'node:child_process';
import { mkdirSync, readdirSync } from 'node:fs';
import path from 'node:path';
import { Readable } from 'node:stream';
import { setTimeout as pause } from 'node:timers/promises';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { answerForError } from '@/app/guard';
import { EVERYTHING } from '@/core/line';
import { newFileSet } from '@/desk/defaults/file-sets';
import { sendVideo } from '@/desk/drop/send';
import { limitLine } from '@/desk/line/line-limits';
import { bringSound } from '@/desk/rights/bring-sound';
import { editVideo } from '@/desk/video/edit-video';
import { lookAtNotices } from '@/desk/views/look-at-notices';
import { lookAtSheet } from '@/desk/views/look-at-sheet';
import type { SheetView } from '@/desk/views/views';
import { closeDatabase, database } from '@/store/database';
import { files } from '@/store/files/folder';
import { settings } from '@/store/settings';
import { endProcess, processEnvironment, startProcess } from '../../bin/setup/processes.mjs';
import { makeClip } from '../setup/clips';
import { addressOf, bringFile, connectedChannels, untilSheet, untilState } from '../setup/desk';
import { gatedFfmpeg } from '../setup/gated-ffmpeg';
import { jobOn } from '../setup/jobs';

const root = path.resolve('.');
const workers: ChildProcess[] = [];
const ffmpeg = gatedFfmpeg('libvpx-vp9');
const start = () => workers.push(startProcess(root, 'worker', { ...processEnvironment(root), ...ffmpeg.env }));
const clip = makeClip({ name: 'side.mp4', seconds: 6 });
/** Larger than what buffers of a line take at once. */
const large = makeClip({ name: 'early-large.mp4', seconds: 10, bitRate: '12M' });
let asVp9: string;

beforeAll(async () => {
  ffmpeg.open();
  await connectedChannels();
  start();
  start();
  const { id } = await newFileSet({
    name: 'As VP9',
    settings: {
      ...{ container: 'mp4', codec: 'vp9', size: { way: 'keep' }, rate: null },
      ...{ control: { way: 'variable', kilobits: 700, ceiling: 1200 } },
      sound: { codec: 'aac', kilobits: 64, sampleRate: 48_000, loudness: null },
    },
  });
  asVp9 = id;
});
afterEach(() => limitLine({ owner: EVERYTHING, limit: null }));
afterAll(async () => {
  await Promise.all(workers.map((worker) => endProcess(worker)));
  await closeDatabase();
});

/** A video that is read, and goes out as a file that is encoded. */
async function toMake(name: string): Promise<string> {
  const videoId = await bringFile(clip, 'Marrow Quay', name);
  await editVideo(videoId, { privacy: 'private', file: { way: 'set', set: asVp9 } });
  await untilSheet(videoId, ({ measured }) => measured === 'ready');
  return videoId;
}

const ownersOf = async (kind: string, table: 'jobs' | 'drops'): Promise<string[]> => {
  const rows: { leaseOwner: string }[] = await database()(table)
    .where(table === 'jobs' ? { kind } : { state: kind })
    .whereNotNull('leaseOwner')
    .select('leaseOwner');
  return [...new Set(rows.map(({ leaseOwner }) => leaseOwner.split('/').slice(0, -2).join('/')))];
};

describe('two workers that make files', () => {
  it('make each once, side by side, and one takes up what the other was killed over', async () => {
    const videos = [await toMake('side-1.mp4'), await toMake('side-2.mp4')];
    ffmpeg.shut();
    for (const id of videos) await sendVideo(id);
    await expect.poll(() => ownersOf('encode', 'jobs')).toHaveLength(2);
    await endProcess(workers[0], 'SIGKILL');
    ffmpeg.open();
    for (const id of videos) await untilState(id, 'live');
    const rows = await database()('renditions')
      .whereIn(
        'cutId',
        (await Promise.all(videos.map(lookAtSheet))).map(({ cut }) => cut?.id ?? ''),
      )
      .whereNotNull('recipe');
    expect(rows.map(({ state }) => state)).toEqual(['ready', 'ready']);
    start();
  });
});

const mayMount = (() => {
  const folder = path.join(root, 'node_modules/.kettle-mount');
  try {
    mkdirSync(folder, { recursive: true });
    execFileSync('mount', ['-t', 'tmpfs', '-o', 'size=1m', 'tmpfs', folder], { stdio: 'ignore' });
    execFileSync('umount', [folder]);
    return true;
  } catch {
    return false;
  }
})();

describe.runIf(mayMount)('a disk that becomes full', () => {
  it('puts the making off, says so, and goes on by itself once there is room', async () => {
    const videoId = await toMake('full-disk.mp4');
    const making = path.join(settings().home, 'making');
    mkdirSync(making, { recursive: true });
    execFileSync('mount', ['-t', 'tmpfs', '-o', 'size=300k', 'tmpfs', making]);
    try {
      await sendVideo(videoId);
      const put = ({ renditions: [rendition] }: SheetView) => rendition?.state === 'waiting' && !!rendition.trouble;
      const sheet = await untilSheet(videoId, put);
      expect(sheet.renditions[0]?.trouble).toBe('The disk is full; make room');
      // While it is tried once more, that try counts until it has failed for the same.
      const job = () => jobOn('encode', sheet.renditions[0]?.id ?? '');
      await expect.poll(job).toMatchObject({ attempts: 0, state: 'waiting' });
      // It is tried more than once by then, and told once an hour.
      const told = (await lookAtNotices()).notices.filter(({ video }) => video === 'The disk');
      expect(told.length).toBeGreaterThan(0);
      expect(told.length).toBeLessThanOrEqual(2);
      expect(told[0]).toMatchObject({ kind: 'needs you', count: 1, channel: '', leadsTo: '/series#disk' });
    } finally {
      execFileSync('umount', ['-l', making]);
    }
    await database()('jobs')
      .where({ kind: 'encode' })
      .update({ nextTryAt: new Date(0) });
    await untilState(videoId, 'live');
  });

  it('takes in no sound, says why, and keeps nothing of it', async () => {
    const videoId = await toMake('full-sound.mp4');
    const sounds = path.dirname(files().localPath('sounds/none'));
    mkdirSync(sounds, { recursive: true });
    execFileSync('mount', ['-t', 'tmpfs', '-o', 'size=300k', 'tmpfs', sounds]);
    try {
      const bytes = Readable.from(Array.from({ length: 20 }, () => Buffer.alloc(50_000)));
      const error = await bringSound(videoId, 'long.wav', bytes).catch((reason: Error) => reason);
      expect(answerForError(error)).toMatchObject({ status: 507 });
      expect(readdirSync(sounds)).toEqual([]);
    } finally {
      execFileSync('umount', ['-l', sounds]);
    }
  });
});

describe('a line that several workers share', () => {
  it('is never filled by more than its limit, each upload having a share, and a new limit takes hold at once', async () => {
    await limitLine({ owner: EVERYTHING, limit: { kilobits: 4000 } });
    const names = ['line-0.mp4', 'line-1.mp4'];
    const [first, second] = await Promise.all(names.map((name) => bringFile(large, 'Tide Notes', name)));
    for (const id of [first, second]) {
      await editVideo(id ?? '', { privacy: 'private' });
      await untilSheet(id ?? '', ({ cut }) => cut?.state === 'ready');
    }
    await sendVideo(first ?? '');
    await expect.poll(() => ownersOf('landing', 'drops')).toHaveLength(1);
    // The worker that has the first is asleep while the second is given out, so that the other takes it.
    const [owner = ''] = await ownersOf('landing', 'drops');
    const sleeper = workers.find(({ pid }) => owner.includes(`.${pid}.`));
    sleeper?.kill('SIGSTOP');
    await sendVideo(second ?? '');
    await expect.poll(() => ownersOf('landing', 'drops')).toHaveLength(2);
    sleeper?.kill('SIGCONT');
    const passed = async () => {
      const all = (await (await fetch(`${addressOf('lanternfold')}/control/passed`)).json()) as Record<string, number>;
      return names.map((name) => all[name] ?? 0);
    };
    /** Bytes a second of each upload over a while. */
    const rates = async (seconds: number) => {
      const before = await passed();
      const since = performance.now();
      await pause(seconds * 1000);
      const after = await passed();
      return after.map((bytes, index) => ((bytes - (before[index] ?? 0)) * 1000) / (performance.now() - since));
    };
    await pause(1500);
    const [narrow] = [await rates(4)];
    const sum = narrow.reduce((all, rate) => all + rate, 0);
    expect(sum).toBeLessThan(500_000 * 1.3);
    expect(sum).toBeGreaterThan(500_000 * 0.5);
    for (const rate of narrow) expect(rate).toBeGreaterThan((sum / narrow.length) * 0.4);
    await limitLine({ owner: EVERYTHING, limit: { kilobits: 16_000 } });
    await pause(1500);
    const wide = (await rates(3)).reduce((all, rate) => all + rate, 0);
    expect(wide).toBeGreaterThan(sum * 1.8);
  });
});
