import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { NO_CHOICE } from '@/core/chapters';
import { actOnDrop } from '@/desk/actions/act-on-drop';
import { settleDifferences } from '@/desk/actions/settle-differences';
import { putBack } from '@/desk/differences/put-back';
import { readNow } from '@/desk/differences/read-now';
import { reviseVideo, sendVideo } from '@/desk/drop/send';
import { makePlaylist } from '@/desk/site/playlists';
import { editOnChannel, editVideo, tickChannel } from '@/desk/video/edit-video';
import { importMarkers } from '@/desk/video/markers';
import { dropPicture, takeFrameAsPicture } from '@/desk/video/pictures';
import { lookAtBoard } from '@/desk/views/look-at-board';
import { lookAtDrop } from '@/desk/views/look-at-drop';
import { lookAtParts } from '@/desk/views/look-at-parts';
import { lookAtSheet } from '@/desk/views/look-at-sheet';
import { siteById } from '@/sites/registry';
import { database } from '@/store/database';
import { confirmParts, noteAskedParts } from '@/store/drop/parts';
import { newId } from '@/store/ids';
import { settings } from '@/store/settings';
import { makeClip } from '../setup/clips';
import {
  askedOf,
  bringFile,
  changedAt,
  channelsOfTheYard,
  forgetAsked,
  onlyDrop,
  setFaultsAt,
  untilGiven,
  untilSheet,
  untilState,
  videosAt,
  yardSession,
} from '../setup/desk';
import { aWorker } from '../setup/worker';

aWorker({ KETTLE_READ_SECONDS: '2' });
const clip = makeClip({ name: 'parts.mp4', seconds: 24, size: '320x180' });
let ids: Map<string, string>;
const quay = () => ids.get('Marrow Quay') ?? '';

beforeAll(async () => {
  ids = await channelsOfTheYard();
});
const noFaults = async () => {
  for (const site of ['lanternfold', 'fieldgate', 'stallmarket']) await setFaultsAt(site);
};
beforeEach(noFaults);
afterAll(noFaults);

async function ready(fileName: string, channel = 'Marrow Quay', words: object = {}): Promise<string> {
  const videoId = await bringFile(clip, 'none', fileName);
  await tickChannel(videoId, ids.get(channel) ?? '', true);
  await untilSheet(videoId, (sheet) => sheet.cut?.state === 'ready');
  await editVideo(videoId, { privacy: 'everyone', summary: 'What it is about.', ...words });
  return videoId;
}
async function live(fileName: string, channel?: string, words?: object): Promise<string> {
  const videoId = await ready(fileName, channel, words);
  await sendVideo(videoId);
  await untilState(videoId, 'live');
  return videoId;
}
const at = async (site: string, fileName: string) =>
  (await videosAt(site)).find((video) => video.fileName === fileName) as Record<string, unknown>;
/** What a site really shows of a file. */
const shownAt = async (site: string, fileName: string) => {
  const { look } = siteById(site, settings().sitesPort);
  return (await look(await yardSession(site), String((await at(site, fileName)).id))).shown;
};
const there = (fileName: string) => at('lanternfold', fileName);
const dropIdOf = async (videoId: string) => onlyDrop(await lookAtSheet(videoId)).id;
const page = async (videoId: string) => lookAtDrop(await dropIdOf(videoId));
const pathOf = async (videoId: string) =>
  `/api/videos/${(await database()('drops').where({ videoId }).whereNotNull('siteVideoId').first('siteVideoId')).siteVideoId}`;
const partOf = async (videoId: string, part: string) => {
  const [channel] = await lookAtParts(videoId);
  return channel?.parts.find((each) => each.part === part);
};
const changesAsked = async (siteId: string) =>
  (await askedOf(siteId))
    .filter(({ method }) => method !== 'GET')
    .map(({ method, path, fields }) => ({ method, path, fields }));

describe('a part that its site does not take', () => {
  it('keeps no other back and the video not closed, is told, and is tried again by itself', async () => {
    const list = await makePlaylist(quay(), { title: 'Slipway' });
    const videoId = await ready('no-list.mp4');
    await editOnChannel(videoId, { channelId: quay(), playlists: [list.sitePlaylistId] });
    await setFaultsAt('lanternfold', {
      kind: 'answer',
      status: 422,
      path: '/playlists',
      method: 'PUT',
    });
    await sendVideo(videoId);
    await untilState(videoId, 'live');
    const [failed, ...more] = (await page(videoId)).failed;
    expect([failed?.part, more]).toEqual(['playlists', []]);
    expect(Date.parse(failed?.retryAt ?? '')).toBeGreaterThan(Date.now());
    expect(
      (await lookAtSheet(videoId)).channels.flatMap(({ events }) => events.map(({ says }) => says)).join('\n'),
    ).toContain('Lanternfold did not take the playlists: ');
    expect((await shownAt('lanternfold', 'no-list.mp4')).playlists).toEqual([]);
    expect(await partOf(videoId, 'playlists')).toMatchObject({ given: null, failed: { why: expect.any(String) } });
    expect(onlyDrop(await lookAtSheet(videoId)).notTaken).toEqual(['playlists']);
    const [row] = (await lookAtBoard({ ids: [videoId] })).rows;
    expect(row?.drops[0]?.notTaken).toEqual(['playlists']);
    await noFaults();
    await database()('dropParts')
      .where({ part: 'playlists' })
      .whereNotNull('retryAt')
      .update({ retryAt: new Date(0) });
    await expect.poll(async () => (await shownAt('lanternfold', 'no-list.mp4')).playlists).toHaveLength(1);
    await expect.poll(async () => (await page(videoId)).failed).toEqual([]);
    expect(await partOf(videoId, 'playlists')).toMatchObject({ given: { value: [list.sitePlaylistId] }, toGive: [] });
  });

  it('is tried again while it is ready to open, and stays so', async () => {
    const list = await makePlaylist(quay(), { title: 'Waiting slip' });
    const videoId = await ready('held-list.mp4', 'Marrow Quay', { release: 'on my word' });
    await editOnChannel(videoId, { channelId: quay(), playlists: [list.sitePlaylistId] });
    await setFaultsAt('lanternfold', { kind: 'answer', status: 422, path: '/playlists', method: 'PUT' });
    await sendVideo(videoId);
    const { id } = await untilState(videoId, 'held');
    expect((await page(videoId)).failed.map(({ part }) => part)).toEqual(['playlists']);
    await noFaults();
    await database()('dropParts')
      .where({ dropId: id, part: 'playlists' })
      .update({ retryAt: new Date(0) });
    // As when it is looked at from time to time.
    await database()('drops')
      .where({ id })
      .update({ nextTryAt: new Date(0) });
    await expect.poll(async () => (await page(videoId)).failed).toEqual([]);
    expect((await shownAt('lanternfold', 'held-list.mp4')).playlists).toEqual([list.sitePlaylistId]);
    expect(onlyDrop(await lookAtSheet(videoId))).toMatchObject({ state: 'held', openedTo: undefined });
  });

  it('is waited for where the site is only busy, so that the video does not open without it', async () => {
    const list = await makePlaylist(quay(), { title: 'Busy slip' });
    const videoId = await ready('busy-list.mp4');
    await editOnChannel(videoId, { channelId: quay(), playlists: [list.sitePlaylistId] });
    const busy = { kind: 'answer', status: 503, retryAfter: 1, path: '/playlists', method: 'PUT', times: 2 };
    await setFaultsAt('lanternfold', busy);
    await sendVideo(videoId);
    await untilState(videoId, 'live');
    expect((await shownAt('lanternfold', 'busy-list.mp4')).playlists).toEqual([list.sitePlaylistId]);
    expect((await page(videoId)).failed).toEqual([]);
    const says = (await lookAtSheet(videoId)).channels.flatMap(({ events }) => events.map((event) => event.says));
    expect(says.join('\n')).not.toContain('did not take');
  });

  it('is told apart from those that go with it in one request, while the video stays live', async () => {
    const videoId = await live('one-of-many.mp4');
    // Together, and then the first alone.
    await setFaultsAt('lanternfold', {
      kind: 'answer',
      status: 422,
      method: 'PATCH',
      path: await pathOf(videoId),
      times: 2,
    });
    await editVideo(videoId, {
      title: 'Not liked',
      summary: 'Another text.',
      tags: { way: 'replace', items: ['oak'] },
    });
    await reviseVideo(videoId);
    await expect.poll(async () => (await there('one-of-many.mp4')).tags).toEqual(['oak']);
    await untilSheet(videoId, (sheet) => !onlyDrop(sheet).giving);
    expect(await there('one-of-many.mp4')).toMatchObject({
      description: 'Another text.',
      title: 'One of many',
      visibility: 'open',
    });
    const { channels } = await lookAtSheet(videoId);
    expect(channels.flatMap(({ changes }) => changes.map(({ field }) => field))).toEqual(['title']);
    expect((await page(videoId)).failed.map(({ part, retryAt }) => [part, retryAt])).toEqual([['title', undefined]]);
    expect(onlyDrop(await lookAtSheet(videoId)).state).toBe('live');
    const notices = await database()('notices')
      .where({ dropId: await dropIdOf(videoId) })
      .pluck('says');
    expect(notices.join('\n')).toContain('Changes were not taken: Lanternfold: ');
    // A person sends it once more.
    await reviseVideo(videoId);
    await untilGiven(videoId);
    expect((await there('one-of-many.mp4')).title).toBe('Not liked');
    expect((await page(videoId)).failed).toEqual([]);
  });
});

describe('what has changed of a live video', () => {
  it('is given part by part, in one request where the site takes them so, and all else stays', async () => {
    const videoId = await live('parts-alone.mp4');
    await editVideo(videoId, { comments: 'off', tags: { way: 'replace', items: ['oak'] } });
    await forgetAsked('lanternfold');
    await reviseVideo(videoId);
    const given = await untilGiven(videoId);
    expect((await changesAsked('lanternfold')).map(({ method, fields }) => [method, fields])).toEqual([
      ['PATCH', expect.arrayContaining(['tags', 'comments'])],
    ]);
    expect(await there('parts-alone.mp4')).toMatchObject({ comments: 'off', tags: ['oak'], visibility: 'open' });
    const says = given.channels.flatMap(({ events }) => events.map((event) => event.says));
    expect(says.slice(-2)).toEqual(['Changes sent to the site: tags, comments', 'The site has it: tags, comments']);
  });

  it('is given once more where its answer was lost, and what was asked is not taken for confirmed', async () => {
    const videoId = await live('answer-lost.mp4');
    await setFaultsAt('lanternfold', {
      kind: 'answer',
      status: 503,
      retryAfter: 2,
      method: 'PATCH',
      path: await pathOf(videoId),
      times: 1,
    });
    await editVideo(videoId, { title: 'Asked for' });
    await reviseVideo(videoId);
    await expect.poll(async () => (await partOf(videoId, 'title'))?.asked?.value).toBe('Asked for');
    expect((await partOf(videoId, 'title'))?.given?.value).toBe('Answer lost');
    // What is wanted is what the site had: it may have the other by now, and is told once more.
    await editVideo(videoId, { title: 'Answer lost' });
    await untilGiven(videoId);
    expect(await partOf(videoId, 'title')).toMatchObject({ asked: null, given: { value: 'Answer lost' } });
    expect((await there('answer-lost.mp4')).title).toBe('Answer lost');
  });

  it('is read again all the same while one of its parts is not answered for', async () => {
    const videoId = await live('still-read.mp4');
    const dropId = await dropIdOf(videoId);
    await database()('dropParts').where({ dropId, part: 'tags' }).update({ asked: '["oak"]', askedKey: dropId });
    await changedAt('lanternfold', 'still-read.mp4', { title: 'Changed there', tags: ['theirs'] });
    await readNow(dropId);
    expect((await page(videoId)).differences.map(({ part }) => part)).toEqual(['title']);
    const { changes } = (await lookAtSheet(videoId)).channels.find(({ drop }) => drop) ?? {};
    expect(changes).toEqual([
      { part: 'tags', field: 'tags', was: 'asked, and not confirmed', is: 'to be sent once more' },
    ]);
  });

  it('is not confirmed by the answer to what it was asked before', async () => {
    const videoId = await live('two-at-once.mp4');
    const drop = { id: await dropIdOf(videoId), round: 0 };
    const [first, second] = [newId(), newId()];
    await noteAskedParts(database(), drop, { title: 'First' }, first);
    await noteAskedParts(database(), drop, { title: 'Second' }, second);
    await confirmParts(database(), drop, { title: 'First' }, first);
    expect(await partOf(videoId, 'title')).toMatchObject({
      given: { value: 'Two at once' },
      asked: { value: 'Second' },
    });
    await confirmParts(database(), drop, { title: 'Second' }, second);
    expect(await partOf(videoId, 'title')).toMatchObject({ given: { value: 'Second' }, asked: null });
  });

  it('does not keep it open where it is closed meanwhile', async () => {
    const videoId = await live('closed-meanwhile.mp4');
    await setFaultsAt('lanternfold', {
      kind: 'late',
      method: 'PATCH',
      path: await pathOf(videoId),
      seconds: 3,
      times: 1,
    });
    await editVideo(videoId, { title: 'Still on its way' });
    await forgetAsked('lanternfold');
    await reviseVideo(videoId);
    await expect.poll(async () => (await partOf(videoId, 'title'))?.asked?.value).toBe('Still on its way');
    await actOnDrop(await dropIdOf(videoId), { action: 'close' });
    await expect.poll(async () => (await there('closed-meanwhile.mp4')).visibility).toBe('closed');
    await untilSheet(videoId, (sheet) => onlyDrop(sheet).state === 'live' && onlyDrop(sheet).openedTo === 'private');
    await expect.poll(async () => (await there('closed-meanwhile.mp4')).title).toBe('Still on its way');
    expect((await there('closed-meanwhile.mp4')).visibility).toBe('closed');
    // Its answer came after the drop had moved, and counts.
    await expect.poll(async () => (await partOf(videoId, 'title'))?.given?.value).toBe('Still on its way');
    expect((await partOf(videoId, 'title'))?.asked).toBeNull();
  });

  it('is taken away where there is none any more: the thumbnail, and chapters', async () => {
    const channel = 'Marrow Quay Films';
    const videoId = await ready('taken-away.mp4', channel, { chapterChoice: { ...NO_CHOICE, colours: [''] } });
    await importMarkers(videoId, Buffer.from('0:00 Start\n0:12 The rope'));
    await takeFrameAsPicture(videoId, { seconds: 2 });
    await sendVideo(videoId);
    await untilState(videoId, 'live');
    const now = () => shownAt('fieldgate', 'taken-away.mp4');
    expect(await now()).toMatchObject({ picture: expect.any(String), chapters: [{}, {}] });
    await dropPicture(videoId);
    await editVideo(videoId, { chapterChoice: { ...NO_CHOICE } });
    const changes = (await lookAtSheet(videoId)).channels.flatMap((each) => each.changes);
    expect(changes.map(({ part, is }) => [part, is])).toEqual([
      ['chapters', ''],
      ['picture', 'the site’s own'],
    ]);
    await reviseVideo(videoId);
    await untilGiven(videoId);
    expect((await now()).chapters).toEqual([]);
    expect((await now()).picture).toBeUndefined();
    await readNow(await dropIdOf(videoId));
    expect((await page(videoId)).differences).toEqual([]);
    // Chapters that somebody adds there are seen.
    await changedAt('fieldgate', 'taken-away.mp4', { chapters: 'WEBVTT\n\n00:00:00.000 --> 00:00:24.000\nTheirs\n' });
    await readNow(await dropIdOf(videoId));
    expect((await page(videoId)).differences.map(({ part, shown }) => [part, shown])).toEqual([
      ['chapters', '0:00 Theirs'],
    ]);
  });
});

describe('a request that says that all is there', () => {
  it('is not made with a part of it where it was refused', async () => {
    const videoId = await ready('handed-in.mp4', 'Marrow Quay Tools', { products: ['2000000000053'] });
    await setFaultsAt('stallmarket', { kind: 'answer', status: 422, method: 'PATCH', times: 1 });
    await forgetAsked('stallmarket');
    await sendVideo(videoId);
    const { id, snag } = await untilState(videoId, 'snag');
    expect(snag?.kind).toBe('refused');
    const tries = async () => (await changesAsked('stallmarket')).filter(({ method }) => method === 'PATCH').length;
    expect(await tries()).toBe(1);
    await actOnDrop(id, { action: 'try again' });
    await untilState(videoId, 'live');
    expect(await tries()).toBe(2);
    expect(await shownAt('stallmarket', 'handed-in.mp4')).toMatchObject({ products: { products: ['2000000000053'] } });
  });
});

describe('what is declared', () => {
  it('is a part like the others: changed there it is told, taken over, and put back', async () => {
    const videoId = await live('declared-there.mp4', 'Marrow Quay', { comments: 'hold all' });
    const first = (await page(videoId)).given.at(-1);
    await changedAt('lanternfold', 'declared-there.mp4', { comments: 'off', ratings: false });
    await readNow(await dropIdOf(videoId));
    const { differences, mayTakeOver } = await page(videoId);
    expect(differences.map(({ part, field, shown }) => [part, field, shown])).toEqual([
      ['permissions', 'comments', 'off'],
      ['permissions', 'ratings', 'no'],
    ]);
    expect(mayTakeOver).toBe(true);
    await settleDifferences(await dropIdOf(videoId), { way: 'take over' });
    const { channels } = await lookAtSheet(videoId);
    expect(channels.find(({ drop }) => drop)?.own).toMatchObject({ comments: 'off', ratings: false });
    expect(channels.flatMap(({ changes }) => changes)).toEqual([]);
    await putBack(await dropIdOf(videoId), { given: first?.id });
    await reviseVideo(videoId);
    await untilGiven(videoId);
    expect(await there('declared-there.mp4')).toMatchObject({ comments: 'hold-all', ratings: true });
  });
});
