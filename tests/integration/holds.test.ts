import { execFileSync } from 'node:child_process';
import { mkdtempSync, statSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { Readable } from 'node:stream';
import { afterEach, beforeAll, describe, expect, it } from 'vitest';
import { answerArrival } from '@/app/api/arrivals/[[...path]]/arrivals';
import { actOnDrop } from '@/desk/actions/act-on-drop';
import { bringLocalFile } from '@/desk/cut/bring-local-file';
import { reviseVideo, sendVideo } from '@/desk/drop/send';
import { editVideo } from '@/desk/video/edit-video';
import { takeFrameAsPicture } from '@/desk/video/pictures';
import { lookAtSheet } from '@/desk/views/look-at-sheet';
import { readFacts } from '@/media/facts';
import { MachineError } from '@/media/program';
import { siteById } from '@/sites/registry';
import { database } from '@/store/database';
import { claimDrops } from '@/store/drop/claims';
import { dropById } from '@/store/drop/drops';
import { files } from '@/store/files/folder';
import { settings } from '@/store/settings';
import { carryDrop } from '@/worker/carry-drop';
import { makeClip } from '../setup/clips';
import {
  announcedCut,
  bringFile,
  connectedChannels,
  onlyDrop,
  setFaults,
  untilSheet,
  untilState,
  videosAtLanternfold,
  yardSession,
} from '../setup/desk';
import { jobOn, workOn } from '../setup/jobs';
import { madeRoom } from '../setup/made-room';
import { aWorker } from '../setup/worker';

const clip = makeClip({ name: 'holds.mp4', seconds: 3 });
const folder = mkdtempSync(path.join(os.tmpdir(), 'kettle-holds-'));
const worker = aWorker();

beforeAll(connectedChannels);
afterEach(() => setFaults());

const thereAs = async (fileName: string) =>
  (await videosAtLanternfold()).filter((video) => video.fileName === fileName);

async function ready(fileName: string, channel = 'Marrow Quay'): Promise<string> {
  const videoId = await bringFile(clip, channel, fileName);
  await untilSheet(videoId, ({ cut }) => cut?.state === 'ready');
  return videoId;
}

describe('no input ends a process, and none reads other files', () => {
  it('a file whose sound outlasts its picture has no picture there, and the worker lives', async () => {
    const file = path.join(folder, 'sound-outlasts.mp4');
    execFileSync('ffmpeg', [
      ...['-v', 'error', '-y', '-f', 'lavfi', '-i', 'testsrc2=s=320x180:r=25:d=1', '-f', 'lavfi'],
      ...['-i', 'sine=d=8', '-c:v', 'libx264', '-pix_fmt', 'yuv420p', '-c:a', 'aac', file],
    ]);
    const { videoId } = await bringLocalFile(file);
    await untilSheet(videoId, ({ cut }) => cut?.state === 'ready');
    await editVideo(videoId, { picture: { way: 'moment', at: { num: 5, den: 1 } } });
    await expect.poll(async () => (await jobOn('picture', videoId)).state).toBe('done');
    expect(worker.isRunning()).toBe(true);
    expect((await lookAtSheet(videoId)).picture).toBeUndefined();
    await expect(takeFrameAsPicture(videoId, { seconds: 5 })).rejects.toMatchObject({ kind: 'not taken' });
  });

  it.each([
    ['a play list', '#EXTM3U\n#EXT-X-TARGETDURATION:3\n#EXTINF:3,\nSECRET\n#EXT-X-ENDLIST\n'],
    ['a list of files to join', "ffconcat version 1.0\nfile 'SECRET'\n"],
  ])('%s that is named like a video is no video', async (_, text) => {
    const file = path.join(folder, 'list.mp4');
    writeFileSync(file, text.replace('SECRET', clip));
    await expect(readFacts(file, statSync(file).size)).rejects.toThrow('not a video file');
  });
});

describe('what is the machine’s fault is never the file’s', () => {
  it('a program that is missing leaves the cut to be read later', async () => {
    const search = process.env.PATH;
    process.env.PATH = '/nowhere';
    try {
      await expect(readFacts(clip, statSync(clip).size)).rejects.toBeInstanceOf(MachineError);
      await worker.end();
      const videoId = await bringFile(clip, 'Marrow Quay', 'no-program.mp4');
      const { cut } = await lookAtSheet(videoId);
      const job = await workOn('read', cut?.id ?? '');
      expect(job).toMatchObject({ state: 'waiting', attempts: 0, putOffs: 1, running: false });
      expect(job.trouble).toContain('cannot be started');
      expect((await lookAtSheet(videoId)).cut?.state).toBe('reading');
    } finally {
      process.env.PATH = search;
      worker.start();
    }
  });

  it('a read that fails lets the claim go, and the row is due again a little later', async () => {
    const videoId = await ready('read-fails.mp4');
    await worker.end();
    await sendVideo(videoId);
    const { id } = onlyDrop(await lookAtSheet(videoId));
    const choice = { states: ['packing'] as const, most: 1, resting: [], firstTryAlways: false };
    const [claim] = await claimDrops('holds', 30, choice);
    expect(claim?.id).toBe(id);
    const since = Date.now();
    await database().schema.renameTable('channels', 'channelsAway');
    if (claim) await carryDrop(claim).finally(() => database().schema.renameTable('channelsAway', 'channels'));
    const row = await database()('drops').where({ id }).first('state', 'attempts', 'leaseOwner', 'nextTryAt');
    expect(row).toMatchObject({ state: 'packing', attempts: 1, leaseOwner: null });
    expect(row?.nextTryAt.getTime()).toBeGreaterThanOrEqual(since + 500);
    worker.start();
    await untilState(videoId, 'live');
  });
});

describe('nothing is left behind at a site', () => {
  it('a removal while the site makes room takes away what it made', async () => {
    const videoId = await ready('during-begin.mp4');
    await worker.end();
    await sendVideo(videoId);
    const { id } = onlyDrop(await lookAtSheet(videoId));
    await madeRoom(id, 'during-begin.mp4');
    expect(await thereAs('during-begin.mp4')).toHaveLength(1);
    await actOnDrop(id, { action: 'remove' });
    worker.start();
    await untilState(videoId, 'removed');
    expect(await thereAs('during-begin.mp4')).toEqual([]);
  });

  it('a video that the site could not process goes when it is sent anew', async () => {
    await setFaults({ kind: 'fail processing', match: 'left-behind', reason: 'broken', times: 2 });
    const videoId = await ready('left-behind.mp4');
    await sendVideo(videoId);
    for (let n = 0; n < 2; n += 1) {
      const { id, snag } = await untilState(videoId, 'snag');
      expect(snag?.kind).toBe('processing');
      await actOnDrop(id, { action: 'try again' });
    }
    const { id } = await untilState(videoId, 'live');
    expect(await thereAs('left-behind.mp4')).toHaveLength(1);
    expect((await dropById(database(), id))?.leftBehind).toBeUndefined();
  });
});

describe('a removal and a second try', () => {
  it('are not held up by a site that refused to make room', async () => {
    await setFaults({ kind: 'answer', path: '/videos', status: 422, times: 100 });
    const videoId = await ready('no-room.mp4');
    await sendVideo(videoId);
    const { id, snag } = await untilState(videoId, 'snag');
    expect(snag?.kind).toBe('refused');
    await actOnDrop(id, { action: 'remove' });
    await untilState(videoId, 'removed');
  });

  it('leave alone what people have seen, should the site be wrong that it is gone', async () => {
    const videoId = await ready('not-gone.mp4');
    await sendVideo(videoId);
    await untilState(videoId, 'live');
    await setFaults({ kind: 'answer', path: '/videos/', status: 404, times: 3 });
    await editVideo(videoId, { title: 'Not gone at all' });
    await reviseVideo(videoId);
    const { id, snag } = await untilState(videoId, 'snag');
    expect(snag?.kind).toBe('missing');
    await setFaults();
    await actOnDrop(id, { action: 'try again' });
    await untilState(videoId, 'live');
    expect(await thereAs('not-gone.mp4')).toHaveLength(2);
  });
});

describe('a line that stands still at the end of a small file', () => {
  it('is given up, and the next one gets through', async () => {
    const site = siteById('lanternfold', settings().sitesPort);
    const session = await yardSession('lanternfold');
    const [channel] = await site.channels(session);
    const bytes = Buffer.alloc(40_000, 1);
    const file = {
      fileName: 'still.mp4',
      size: bytes.length,
      open: (start: number) => Readable.from([bytes.subarray(start)]),
    };
    const begun = await site.begin(session, channel?.siteChannelId ?? '', `still.${Date.now()}`, file);
    await setFaults({ kind: 'stall', match: 'still', bytes: 0, times: 1 });
    const gone = AbortSignal.timeout(1500);
    await expect(site.carry(session, begun, file, () => {}, gone)).rejects.toThrow();
    let over = 0;
    await site.carry(
      session,
      begun,
      file,
      (sent) => {
        over = sent;
      },
      new AbortController().signal,
    );
    expect(over).toBe(bytes.length);
    await site.remove(session, begun.siteVideoId);
  });
});

describe('a transfer into Kettle Drop', () => {
  const TUS = { 'tus-resumable': '1.0.0' };
  const at = (rest: string) => `http://127.0.0.1/api/arrivals${rest}`;

  it('that is over takes nothing away and writes nothing more', async () => {
    const cut = await announcedCut({ fileName: 'over.mp4', size: 4 });
    const metadata = `cutId ${Buffer.from(cut.id).toString('base64')}`;
    const made = { ...TUS, 'upload-length': '4', 'upload-metadata': metadata };
    await answerArrival(new Request(at(''), { method: 'POST', headers: made }));
    const patch = { ...TUS, 'content-type': 'application/offset+octet-stream', 'upload-offset': '0' };
    await answerArrival(new Request(at(`/${cut.id}`), { method: 'PATCH', headers: patch, body: 'abcd' }));
    const gone = await answerArrival(new Request(at(`/${cut.id}`), { method: 'DELETE', headers: TUS }));
    expect(gone.status).toBe(409);
    expect(await files().size(cut.fileKey)).toBe(4);
  });

  it('whose last byte came before somebody could say so is taken in all the same', async () => {
    const bytes = Buffer.from('no video, but whole');
    const cut = await announcedCut({ fileName: 'whole.mp4', size: bytes.length });
    await files().put(cut.fileKey, Readable.from([bytes]));
    await untilSheet(cut.videoId, (sheet) => sheet.cut?.state === 'refused');
  });
});

describe('long transfers', () => {
  it('hold up nothing that is short', async () => {
    const short = await ready('short.mp4');
    await sendVideo(short);
    const { id } = await untilState(short, 'live');
    await setFaults({ kind: 'stall', match: 'long-', bytes: 0, times: 8 });
    const long: string[] = [];
    for (let n = 0; n < 8; n += 1) long.push(await ready(`long-${n}.mp4`, n < 4 ? 'Marrow Quay' : 'Tide Notes'));
    for (const videoId of long) await sendVideo(videoId);
    const held = async (): Promise<string[]> => {
      const rows: { videoId: string }[] = await database()('drops')
        .where({ state: 'landing' })
        .whereNotNull('leaseOwner')
        .select('videoId');
      return rows.map(({ videoId }) => videoId).sort();
    };
    await expect.poll(held).toEqual([...long].sort());
    await actOnDrop(id, { action: 'remove' });
    await untilState(short, 'removed');
    expect(await held()).toEqual([...long].sort());
    for (const videoId of long) {
      await actOnDrop(onlyDrop(await lookAtSheet(videoId)).id, { action: 'remove' });
      await untilState(videoId, 'removed');
    }
  });
});
