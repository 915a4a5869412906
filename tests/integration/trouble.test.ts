import { appendFileSync, copyFileSync, mkdtempSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { actOnDrop } from '@/desk/actions/act-on-drop';
import { reviseVideo, sendVideo } from '@/desk/drop/send';
import { editVideo } from '@/desk/video/edit-video';
import { lookAtChannels } from '@/desk/views/look';
import { lookAtSheet } from '@/desk/views/look-at-sheet';
import { siteById } from '@/sites/registry';
import { database } from '@/store/database';
import { files } from '@/store/files/folder';
import { settings } from '@/store/settings';
import { connectAs } from '../../demo/sign-in';
import { makeClip } from '../setup/clips';
import {
  addressOf,
  bringFile,
  connectedChannels,
  onlyDrop,
  setFaults,
  untilGiven,
  untilSheet,
  untilState,
  videosAtLanternfold,
  yardSession,
} from '../setup/desk';
import { aWorker } from '../setup/worker';

const worker = aWorker();
const clip = makeClip({ name: 'trouble.mp4', seconds: 3 });
const post = (at: string) => fetch(`${addressOf('lanternfold')}/control/${at}`, { method: 'POST' });

async function sent(fileName: string, privacy = 'private', file = clip): Promise<string> {
  const videoId = await bringFile(file, 'Marrow Quay', fileName);
  await untilSheet(videoId, (sheet) => sheet.cut?.state === 'ready');
  await editVideo(videoId, { privacy });
  await sendVideo(videoId);
  return videoId;
}

beforeEach(() => setFaults());
afterAll(() => setFaults());

describe('trouble at the site', () => {
  it('that passes by itself is waited out: busy, broken lines, tokens that run out', async () => {
    await connectedChannels();
    await post('expire-tokens');
    await setFaults(
      // More than once: drops of other tests may still ask there.
      { kind: 'answer', status: 503, retryAfter: 1, times: 3, path: '/videos' },
      { kind: 'answer', status: 429, retryAfter: 1, times: 1, path: '/files' },
      { kind: 'cut', bytes: 20_000, times: 2 },
    );
    const videoId = await sent('passes.mp4');
    const drop = await untilState(videoId, 'live');
    const events = (await lookAtSheet(videoId)).channels.flatMap((channel) => channel.events);
    expect(events.some((event) => event.kind === 'waits' && event.says.includes('asks to wait'))).toBe(true);
    expect((await videosAtLanternfold()).filter((video) => String(video.key).startsWith(drop.id))).toHaveLength(1);
  });

  it.each([
    ['changed', (file: string) => appendFileSync(file, 'more'), 'The file was changed after it was added'],
    ['gone', (file: string) => rmSync(file), 'The file is gone from the disk'],
  ])(
    'is none of the site’s where a file is %s while it goes: the rest of it is not sent',
    async (name, spoil, what) => {
      const fileName = `${name}-on-its-way.mp4`;
      await setFaults({ kind: 'line', match: name, bytes: 20_000 });
      // A copy: what is brought in may be the clip itself by another name, which others still need as it is.
      const own = path.join(mkdtempSync(path.join(os.tmpdir(), 'kettle-trouble-')), fileName);
      copyFileSync(clip, own);
      const videoId = await sent(fileName, 'private', own);
      const { cut } = await untilSheet(videoId, (sheet) => onlyDrop(sheet).bytesSent > 0);
      await worker.end();
      const { fileKey } = await database()('cuts').where({ id: cut?.id }).first('fileKey');
      spoil(files().localPath(fileKey));
      await setFaults();
      worker.start();
      const { snag } = await untilState(videoId, 'snag');
      expect(snag).toMatchObject({ kind: 'file', what, remedy: 'Replace the file, then try again' });
      const [there] = (await videosAtLanternfold()).filter((video) => video.fileName === fileName);
      expect(there?.stage).toBe('receiving');
    },
  );

  it('in processing is a snag; trying again sends it as a new video', async () => {
    await setFaults({ kind: 'fail processing', match: 'broken', reason: 'no picture after 2 s', times: 1 });
    const videoId = await sent('broken.mp4');
    const snag = await untilState(videoId, 'snag');
    expect(snag.snag).toMatchObject({ kind: 'processing', what: expect.stringContaining('no picture after 2 s') });
    await actOnDrop(snag.id, { action: 'try again' });
    const held = await untilState(videoId, 'live');
    expect(held.link).not.toBe(snag.link);
  });

  it('a rights match names owner and span, and is agreed to by hand', async () => {
    await setFaults({
      kind: 'rights match',
      match: 'music',
      reason: 'Harbour Lane Music',
      from: 1,
      to: 2,
      wants: 'share',
    });
    const videoId = await sent('music.mp4', 'everyone');
    const { id, snag } = await untilState(videoId, 'snag');
    expect(snag).toMatchObject({ kind: 'rights', at: 'clearing' });
    expect(snag?.what).toContain('0:01–0:02: Harbour Lane Music');
    await actOnDrop(id, { action: 'accept' });
    await untilState(videoId, 'live');
  });

  it('what the site has altered is found in proofing, and sent again', async () => {
    await setFaults({ kind: 'alter', match: 'altered', field: 'title', value: 'Something else', times: 1 });
    const videoId = await sent('altered.mp4');
    const { id, snag } = await untilState(videoId, 'snag');
    expect(snag?.what).toContain('The title on Lanternfold is “Something else”; it should be “Altered”');
    await actOnDrop(id, { action: 'try again' });
    await untilState(videoId, 'live');
    expect((await videosAtLanternfold()).find((video) => video.fileName === 'altered.mp4')?.title).toBe('Altered');
  });

  it('a file that did not arrive as it was is found by its digest', async () => {
    await setFaults({ kind: 'alter', match: 'swapped', field: 'file', times: 1 });
    const { snag } = await untilState(await sent('swapped.mp4'), 'snag');
    expect(snag?.what).toBe('The file on Lanternfold is not the one that was sent');
  });

  it('a permission that was taken back stops the drop; connecting again lets it go on from where it stood', async () => {
    await setFaults({ kind: 'line', match: 'taken', bytes: 60_000 });
    const videoId = await sent('taken.mp4');
    await untilSheet(videoId, (sheet) => onlyDrop(sheet).bytesSent > 0);
    await post('take-back');
    await setFaults();
    const { snag, link } = await untilState(videoId, 'snag');
    expect(snag?.kind).toBe('permission');
    const account = (await lookAtChannels()).sites[0]?.accounts[0];
    expect(account?.state).toBe('taken back');
    await connectAs('lanternfold', 'wil-tarrant');
    const held = await untilState(videoId, 'live');
    expect(held.link).toBe(link);
  });

  it('a video that somebody has removed at the site is said to be gone, and can be sent anew', async () => {
    const videoId = await sent('gone.mp4');
    const live = await untilState(videoId, 'live');
    const there = (await videosAtLanternfold()).find((video) => video.fileName === 'gone.mp4');
    await siteById('lanternfold', settings().sitesPort).remove(await yardSession('lanternfold'), String(there?.id));
    await editVideo(videoId, { title: 'Gone meanwhile' });
    await reviseVideo(videoId);
    const { id, snag } = await untilState(videoId, 'snag');
    expect(snag).toMatchObject({ kind: 'missing', what: 'The video is gone from Lanternfold' });
    await actOnDrop(id, { action: 'try again' });
    const again = await untilState(videoId, 'live');
    expect(again.link).not.toBe(live.link);
    expect((await videosAtLanternfold()).filter((video) => video.fileName === 'gone.mp4')).toHaveLength(1);
  });

  it('changes made while it is live are sent on one action, and it stays live', async () => {
    const videoId = await sent('revised.mp4', 'everyone');
    const live = await untilState(videoId, 'live');
    await editVideo(videoId, { title: 'Revised ⛵', tags: { way: 'add', items: ['keel'] } });
    expect(
      (await lookAtSheet(videoId)).channels.find((channel) => channel.drop)?.changes.map(({ field }) => field),
    ).toEqual(['title', 'tags']);
    await actOnDrop(live.id, { action: 'revise' });
    const { state, giving } = onlyDrop(await lookAtSheet(videoId));
    expect([state, giving]).toEqual(['live', { trouble: undefined }]);
    await untilGiven(videoId);
    const there = (await videosAtLanternfold()).find((video) => video.fileName === 'revised.mp4');
    expect(there).toMatchObject({ title: 'Revised ⛵', tags: ['keel'], visibility: 'open' });
  });

  it('sending twice sends once', async () => {
    const videoId = await sent('once.mp4');
    const [again] = await Promise.all([sendVideo(videoId), sendVideo(videoId)]);
    expect(again).toEqual({ sent: [], notReady: [] });
    await untilState(videoId, 'live');
    expect((await videosAtLanternfold()).filter((video) => video.fileName === 'once.mp4')).toHaveLength(1);
  });
});
