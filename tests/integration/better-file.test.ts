import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { actOnDrop } from '@/desk/actions/act-on-drop';
import { bringLocalFile } from '@/desk/cut/bring-local-file';
import { readNow } from '@/desk/differences/read-now';
import { sendVideo } from '@/desk/drop/send';
import { editVideo, tickChannel } from '@/desk/video/edit-video';
import { lookAtBoard } from '@/desk/views/look-at-board';
import { lookAtSheet } from '@/desk/views/look-at-sheet';
import { siteById } from '@/sites/registry';
import { database } from '@/store/database';
import { dropById } from '@/store/drop/drops';
import { videosNamed } from '@/store/record/videos';
import { settings } from '@/store/settings';
import { makeClip } from '../setup/clips';
import {
  bringFile,
  channelsOfTheYard,
  onlyDrop,
  readVideo,
  setFaultsAt,
  untilSheet,
  untilState,
  videosAt,
  yardSession,
} from '../setup/desk';
import { madeRoom } from '../setup/made-room';
import { aWorker } from '../setup/worker';

const worker = aWorker();
const clip = makeClip({ name: 'better-old.mp4', seconds: 3 });
const better = makeClip({ name: 'better-new.mp4', seconds: 4 });
let ids: Map<string, string>;

const noFaults = async () => {
  for (const site of ['lanternfold', 'fieldgate', 'stallmarket']) await setFaultsAt(site);
};
beforeAll(async () => {
  ids = await channelsOfTheYard();
});
beforeEach(noFaults);
afterAll(noFaults);

/** A video that is live to everyone, with a better file that is here. */
async function liveWithBetter(fileName: string, channel: string) {
  const videoId = await bringFile(clip, 'none', fileName);
  await tickChannel(videoId, ids.get(channel) ?? '', true);
  await untilSheet(videoId, (sheet) => sheet.cut?.state === 'ready');
  await editVideo(videoId, { privacy: 'everyone', summary: 'What it is about.' });
  await sendVideo(videoId);
  const { link = '', id } = await untilState(videoId, 'live');
  await bringLocalFile(better, { fileName, videoId, anyway: true });
  await untilSheet(videoId, (sheet) => onlyDrop(sheet).otherFile);
  return { videoId, link, id };
}

const status = async (link: string) => (await fetch(link)).status;
const there = async (site: string, fileName: string) =>
  (await videosAt(site)).filter((video) => video.fileName === fileName) as { id: string; seconds: number }[];
const lengths = async (site: string, fileName: string) =>
  (await there(site, fileName)).map(({ seconds }) => Math.round(seconds)).sort();
const actions = async (videoId: string) =>
  (await lookAtSheet(videoId)).channels.find(({ drop }) => drop)?.drop?.actions ?? [];

describe('a video that was turned down in review', () => {
  it('is handed in anew with the file that is there now, not with the old one', async () => {
    const fileName = 'turned-down.mp4';
    await setFaultsAt('stallmarket', { kind: 'turn down', match: 'turned-down', times: 1, reason: 'R', remedy: 'S' });
    const videoId = await readVideo(clip, fileName, { products: ['2000000000015'] }, 'Marrow Quay Tools');
    await editVideo(videoId, { privacy: 'everyone', summary: 'A spokeshave.' });
    expect((await sendVideo(videoId)).notReady).toEqual([]);
    const { id, link = '' } = await untilState(videoId, 'snag');
    expect(onlyDrop(await lookAtSheet(videoId))).toMatchObject({ linkEnds: false, formerLinks: [] });
    await bringLocalFile(better, { fileName, videoId, anyway: true });
    // A link that was copied is one of another video then, which is said before.
    expect(onlyDrop(await untilSheet(videoId, (sheet) => onlyDrop(sheet).otherFile)).linkEnds).toBe(true);
    await actOnDrop(id, { action: 'try again' });
    await untilState(videoId, 'live');
    expect(await lengths('stallmarket', fileName)).toEqual([4]);
    const now = onlyDrop(await lookAtSheet(videoId));
    expect([now.link, now.formerLinks]).toEqual([expect.not.stringMatching(link), [link]]);
    expect((await lookAtBoard({ find: link })).rows.map((row) => row.videoId)).toEqual([videoId]);
    expect(await videosNamed(database(), { link })).toMatchObject([{ id: videoId }]);
  });
});

describe('a better file for a live video', () => {
  it('takes the place of the old one where the site can do that: the link stays, and it is open all the time', async () => {
    const { videoId, link, id } = await liveWithBetter('swap.mp4', 'Marrow Quay Films');
    expect(await actions(videoId)).not.toContain('new file, remove');
    await actOnDrop(id, { action: 'new file' });
    const seen = new Set<number>();
    await untilSheet(videoId, (sheet) => {
      void status(link).then((each) => seen.add(each));
      return onlyDrop(sheet).state === 'live' && !onlyDrop(sheet).otherFile;
    });
    const drop = onlyDrop(await lookAtSheet(videoId));
    expect(drop.link).toBe(link);
    expect([...seen]).toEqual([200]);
    expect(await lengths('fieldgate', 'swap.mp4')).toEqual([4]);
    expect(JSON.stringify(await there('fieldgate', 'swap.mp4'))).toContain('What it is about.');
  });

  it('goes up as a new video elsewhere: the old one is closed once the new one is open, and is found by its link', async () => {
    const { videoId, link, id } = await liveWithBetter('close-old.mp4', 'Marrow Quay');
    await actOnDrop(id, { action: 'new file' });
    await untilSheet(videoId, (sheet) => onlyDrop(sheet).link !== link && onlyDrop(sheet).state === 'live');
    const drop = onlyDrop(await lookAtSheet(videoId));
    expect([await status(link), await status(drop.link ?? '')]).toEqual([404, 200]);
    expect(await lengths('lanternfold', 'close-old.mp4')).toEqual([3, 4]);
    expect(await videosNamed(database(), { link })).toEqual([{ id: videoId, title: 'Close old' }]);
    expect(drop).toMatchObject({ otherFile: false, replacing: false });
    // What the old one had there is of no use once the new one was read.
    const rounds = () =>
      database()('dropParts').where({ dropId: id }).distinct('round').orderBy('round').pluck('round');
    await readNow(id);
    expect(await rounds()).toEqual([1]);
  });

  it('takes the old one away where that is asked for, also where this machine was off in between', async () => {
    const { videoId, link, id } = await liveWithBetter('remove-old.mp4', 'Marrow Quay');
    await setFaultsAt('lanternfold', { kind: 'line', match: 'remove-old', bytes: 150_000 });
    await actOnDrop(id, { action: 'new file, remove' });
    await untilSheet(videoId, (sheet) => onlyDrop(sheet).bytesSent > 0 && onlyDrop(sheet).state === 'landing');
    expect(await status(link)).toBe(200);
    await worker.end('SIGKILL');
    await noFaults();
    worker.start();
    await untilSheet(videoId, (sheet) => onlyDrop(sheet).state === 'live' && onlyDrop(sheet).link !== link);
    expect(await status(link)).toBe(404);
    expect(await lengths('lanternfold', 'remove-old.mp4')).toEqual([4]);
  });

  it.each(['Marrow Quay Films', 'Marrow Quay'])(
    'shows nothing to more people by itself where the video was seen by its owner alone: %s',
    async (channel) => {
      const fileName = `wider-${channel.replaceAll(' ', '-')}.mp4`;
      const videoId = await readVideo(clip, fileName, { privacy: 'private', title: 'Wider' }, channel);
      await sendVideo(videoId);
      const { id } = await untilState(videoId, 'live');
      await editVideo(videoId, { privacy: 'everyone' });
      await bringLocalFile(better, { fileName, videoId, anyway: true });
      await untilSheet(videoId, (sheet) => onlyDrop(sheet).otherFile);
      await actOnDrop(id, { action: 'new file' });
      const { link = '' } = await untilState(videoId, 'held');
      expect(await status(link)).toBe(404);
      await actOnDrop(id, { action: 'open' });
      await untilState(videoId, 'live');
      const now = onlyDrop(await lookAtSheet(videoId));
      expect(now).toMatchObject({ openedTo: 'everyone', replacing: false, otherFile: false });
      expect(await status(now.link ?? '')).toBe(200);
    },
  );

  it('is given up by a word: the old one stays with its link, and nothing is left behind', async () => {
    const { videoId, link, id } = await liveWithBetter('given-up.mp4', 'Marrow Quay');
    await setFaultsAt('lanternfold', { kind: 'line', match: 'given-up', bytes: 30_000 });
    await actOnDrop(id, { action: 'new file' });
    await untilSheet(videoId, (sheet) => onlyDrop(sheet).state === 'landing' && onlyDrop(sheet).bytesSent > 0);
    await actOnDrop(id, { action: 'keep the old file' });
    await noFaults();
    const drop = onlyDrop(await untilSheet(videoId, (sheet) => onlyDrop(sheet).state === 'live'));
    expect(drop).toMatchObject({ link, replacing: false, otherFile: true });
    expect(await status(link)).toBe(200);
    expect(await lengths('lanternfold', 'given-up.mp4')).toEqual([3]);
  });

  it('goes with the video where that is removed: neither is left at the site', async () => {
    const { videoId, link, id } = await liveWithBetter('both-go.mp4', 'Marrow Quay');
    await setFaultsAt('lanternfold', { kind: 'line', match: 'both-go', bytes: 30_000 });
    await actOnDrop(id, { action: 'new file' });
    await untilSheet(videoId, (sheet) => onlyDrop(sheet).state === 'landing' && onlyDrop(sheet).bytesSent > 0);
    expect(await there('lanternfold', 'both-go.mp4')).toHaveLength(2);
    await actOnDrop(id, { action: 'remove' });
    await noFaults();
    await untilState(videoId, 'removed');
    expect(await there('lanternfold', 'both-go.mp4')).toEqual([]);
    expect(await status(link)).toBe(404);
  });

  it('needs no other word where the one that is live was opened by one', async () => {
    const { videoId, link, id } = await liveWithBetter('by-word.mp4', 'Marrow Quay');
    await editVideo(videoId, { release: 'on my word' });
    await actOnDrop(id, { action: 'new file' });
    await untilSheet(videoId, (sheet) => onlyDrop(sheet).link !== link && onlyDrop(sheet).state === 'live');
    const drop = onlyDrop(await lookAtSheet(videoId));
    expect([await status(link), await status(drop.link ?? '')]).toEqual([404, 200]);
  });

  it('that is given up while the site makes room for it leaves nothing there', async () => {
    const { videoId, link, id } = await liveWithBetter('making-room.mp4', 'Marrow Quay');
    await worker.end();
    await actOnDrop(id, { action: 'new file' });
    await madeRoom(id, 'making-room.mp4');
    expect(await there('lanternfold', 'making-room.mp4')).toHaveLength(2);
    await actOnDrop(id, { action: 'keep the old file' });
    worker.start();
    await untilSheet(videoId, (sheet) => onlyDrop(sheet).state === 'live');
    expect(await lengths('lanternfold', 'making-room.mp4')).toEqual([3]);
    expect(await status(link)).toBe(200);
  });

  it('is noted after a stop between the swap and its noting, and nothing is swapped twice', async () => {
    const { videoId, link, id } = await liveWithBetter('swapped.mp4', 'Marrow Quay Films');
    await setFaultsAt('fieldgate', { kind: 'answer', path: '/file', status: 503, match: '', retryAfter: 1 });
    await actOnDrop(id, { action: 'new file' });
    await untilSheet(videoId, (sheet) => onlyDrop(sheet).state === 'opening');
    await worker.end('SIGKILL');
    await noFaults();
    const { former, siteVideoId } = (await dropById(database(), id)) ?? {};
    const site = siteById('fieldgate', settings().sitesPort);
    await site.takePlace?.(await yardSession('fieldgate'), former?.siteVideoId ?? '', siteVideoId ?? '');
    worker.start();
    const drop = onlyDrop(await untilSheet(videoId, (sheet) => onlyDrop(sheet).state === 'live'));
    expect(drop).toMatchObject({ link, replacing: false, otherFile: false });
    expect(await lengths('fieldgate', 'swapped.mp4')).toEqual([4]);
    expect(await status(link)).toBe(200);
  });

  it('keeps nobody from closing what is live: by a press at once, and the new one opens to nobody', async () => {
    const { videoId, link, id } = await liveWithBetter('close-now.mp4', 'Marrow Quay');
    await setFaultsAt('lanternfold', { kind: 'line', match: 'close-now', bytes: 30_000 });
    await actOnDrop(id, { action: 'new file' });
    await untilSheet(videoId, (sheet) => onlyDrop(sheet).state === 'landing' && onlyDrop(sheet).bytesSent > 0);
    expect(await actions(videoId)).toContain('close');
    await actOnDrop(id, { action: 'close' });
    expect(await status(link)).toBe(404);
    await noFaults();
    const drop = onlyDrop(
      await untilSheet(videoId, (sheet) => onlyDrop(sheet).state === 'live' && !onlyDrop(sheet).replacing),
    );
    expect(drop.openedTo).toBe('private');
    expect(await status(drop.link ?? '')).toBe(404);
  });

  it('that the site cannot process needs a person, while the old one is open; tried again, it takes the place all the same', async () => {
    const { videoId, link, id } = await liveWithBetter('fails-once.mp4', 'Marrow Quay');
    await setFaultsAt('lanternfold', { kind: 'fail processing', match: 'fails-once', times: 1 });
    await actOnDrop(id, { action: 'new file, remove' });
    await untilState(videoId, 'snag');
    expect(await status(link)).toBe(200);
    await actOnDrop(id, { action: 'try again' });
    await untilSheet(videoId, (sheet) => onlyDrop(sheet).state === 'live' && onlyDrop(sheet).link !== link);
    expect(await status(link)).toBe(404);
    expect(await lengths('lanternfold', 'fails-once.mp4')).toEqual([4]);
  });
});
