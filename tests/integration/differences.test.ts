import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { NO_CHOICE } from '@/core/chapters';
import { actOnDrop } from '@/desk/actions/act-on-drop';
import { settleDifferences } from '@/desk/actions/settle-differences';
import { undo } from '@/desk/changes/changes';
import { readNow } from '@/desk/differences/read-now';
import { reviseVideo, sendVideo } from '@/desk/drop/send';
import { editVideo, tickChannel } from '@/desk/video/edit-video';
import { importMarkers } from '@/desk/video/markers';
import { lookAtChannels } from '@/desk/views/look';
import { lookAtDrop } from '@/desk/views/look-at-drop';
import { lookAtSheet } from '@/desk/views/look-at-sheet';
import { database } from '@/store/database';
import { dropById } from '@/store/drop/drops';
import { givenTo } from '@/store/drop/parts';
import { reviewsOf } from '@/store/drop/reviews';
import { requestsOf } from '@/store/drop/site-requests';
import { makeClip } from '../setup/clips';
import {
  askedOf,
  bringFile,
  changedAt,
  channelsOfTheYard,
  forgetAsked,
  onlyDrop,
  setFaultsAt,
  untilSheet,
  untilState,
  videosAt,
} from '../setup/desk';
import { aWorker } from '../setup/worker';

aWorker({ KETTLE_READ_SECONDS: '2' });
const clip = makeClip({ name: 'differences.mp4', seconds: 3 });
const long = makeClip({ name: 'chapters-there.mp4', seconds: 24, size: '160x90' });
let ids: Map<string, string>;

beforeAll(async () => {
  ids = await channelsOfTheYard();
});
const noFaults = async () => {
  for (const site of ['lanternfold', 'stallmarket']) await setFaultsAt(site);
};
beforeEach(noFaults);
afterAll(noFaults);

async function sent(fileName: string, channel = 'Marrow Quay', words: object = {}): Promise<string> {
  const videoId = await bringFile(clip, 'none', fileName);
  await tickChannel(videoId, ids.get(channel) ?? '', true);
  await untilSheet(videoId, (sheet) => sheet.cut?.state === 'ready');
  await editVideo(videoId, { privacy: 'everyone', summary: 'What it is about.', ...words });
  await sendVideo(videoId);
  return videoId;
}

const channelOf = (name: string): string => ids.get(name) ?? '';
const dropOf = async (videoId: string) => {
  const sent = database()('drops').where({ videoId }).whereNot({ state: 'draft' }).first('id');
  const drop = await dropById(database(), (await sent)?.id);
  if (!drop) throw new Error('There is no drop');
  return drop;
};
const says = async (videoId: string) =>
  (await lookAtSheet(videoId)).channels.flatMap(({ events }) => events.map((event) => event.says)).join('\n');
const shownAt = async (fileName: string) =>
  (await videosAt('lanternfold')).find((video) => video.fileName === fileName) as Record<string, unknown>;
const own = async (videoId: string) =>
  (await lookAtSheet(videoId)).channels.find(({ ticked }) => ticked)?.own as Record<string, unknown>;
/** What the page of the drop tells that the site shows otherwise. */
const shows = async (videoId: string) => (await lookAtDrop((await dropOf(videoId)).id)).differences;
const untilShows = (videoId: string, count: number) =>
  expect.poll(async () => (await shows(videoId)).length).toBe(count);

describe('what a site shows otherwise than it was meant', () => {
  const altered = async (fileName: string, field: string, value: string) => {
    await setFaultsAt('lanternfold', { kind: 'alter', match: fileName, field, value, times: 1 });
    const videoId = await sent(fileName);
    return { videoId, drop: await untilState(videoId, 'snag') };
  };

  it('is told with both texts, and put right at the site', async () => {
    const { videoId, drop } = await altered('put-right.mp4', 'title', 'Mangled');
    expect(drop.snag?.differences).toEqual([{ part: 'title', field: 'title', meant: 'Put right', shown: 'Mangled' }]);
    await settleDifferences(drop.id, { way: 'put right' });
    await untilState(videoId, 'live');
    expect((await shownAt('put-right.mp4')).title).toBe('Put right');
  });

  it('is taken over by the record for this channel, and undo brings the meant one back', async () => {
    const { videoId, drop } = await altered('take-over.mp4', 'description', 'Written at the site.');
    await settleDifferences(drop.id, { way: 'take over' });
    const live = await untilState(videoId, 'live');
    expect((await shownAt('take-over.mp4')).description).toBe('Written at the site.');
    expect(await own(videoId)).toMatchObject({ text: 'Written at the site.' });
    const channel = (await lookAtSheet(videoId)).channels.find(({ drop: each }) => each?.id === live.id);
    expect(channel?.changes).toEqual([]);
    await undo(videoId);
    expect(await own(videoId)).toEqual({});
  });

  it('stays as it is where a person leaves it, and the record keeps what it has', async () => {
    const { videoId, drop } = await altered('left.mp4', 'title', 'As they like it');
    await settleDifferences(drop.id, { way: 'leave' });
    await untilState(videoId, 'live');
    expect((await shownAt('left.mp4')).title).toBe('As they like it');
    expect((await lookAtSheet(videoId)).title).toBe('Left');
    await expect(settleDifferences(drop.id, { way: 'leave' })).rejects.toThrow('changed meanwhile');
  });
});

describe('live videos', () => {
  it('are read together, in one request for all that are due; how far that is, Channels says', async () => {
    const videos = [await sent('together-0.mp4'), await sent('together-1.mp4')];
    for (const id of videos) await untilState(id, 'live');
    for (const id of videos) await untilShows(id, 0);
    await forgetAsked('lanternfold');
    await database()('drops').whereIn('videoId', videos).update({ readAt: null });
    const round = async () => {
      const accounts = (await lookAtChannels()).sites.flatMap((site) => site.accounts);
      return accounts.flatMap(({ channels }) => channels).find(({ name }) => name === 'Marrow Quay')?.round;
    };
    await expect.poll(round).toMatchObject({ unread: 0, readSince: expect.any(String) });
    const paths = async () => (await askedOf('lanternfold')).map(({ method, path }) => `${method} ${path}`);
    await expect.poll(paths).toContain('GET /api/videos');
    const live = await database()('drops').where({ state: 'live', channelId: channelOf('Marrow Quay') });
    expect(await round()).toMatchObject({ live: live.length });
  });
});

describe('a live video', () => {
  it('is read again: what somebody changes there is told once, stops nothing, and is put right or left', async () => {
    const videoId = await sent('read-again.mp4');
    await untilState(videoId, 'live');
    await untilShows(videoId, 0);
    await changedAt('lanternfold', 'read-again.mp4', { title: 'Changed there' });
    await untilShows(videoId, 1);
    const drop = await dropOf(videoId);
    expect(await shows(videoId)).toEqual([
      { part: 'title', field: 'title', meant: 'Read again', shown: 'Changed there' },
    ]);
    expect(drop.state).toBe('live');
    expect(await says(videoId)).toContain('title is “Changed there”; it was “Read again”');
    await settleDifferences(drop.id, { way: 'put right' });
    await expect.poll(async () => (await shownAt('read-again.mp4')).title).toBe('Read again');
    await untilState(videoId, 'live');
    await changedAt('lanternfold', 'read-again.mp4', { tags: ['theirs'] });
    await untilShows(videoId, 1);
    await settleDifferences(drop.id, { way: 'leave' });
    const before = (await dropOf(videoId)).readAt;
    await expect.poll(async () => (await dropOf(videoId)).readAt).not.toEqual(before);
    expect(await shows(videoId)).toMatchObject([{ field: 'tags', left: true }]);
    expect((await says(videoId)).match(/tags is “theirs”/g)).toHaveLength(1);
    // What was left stays there where something else is put right.
    await changedAt('lanternfold', 'read-again.mp4', { title: 'Changed once more' });
    await untilShows(videoId, 2);
    await settleDifferences(drop.id, { way: 'put right' });
    await expect.poll(async () => (await shownAt('read-again.mp4')).title).toBe('Read again');
    await untilState(videoId, 'live');
    expect((await shownAt('read-again.mp4')).tags).toEqual(['theirs']);
    expect(await shows(videoId)).toMatchObject([{ field: 'tags', left: true }]);
  });

  it('is read now where a person asks, and a text is taken over with the chapters that somebody changed in it', async () => {
    const videoId = await bringFile(long, 'Marrow Quay', 'chapters-there.mp4');
    await untilSheet(videoId, (sheet) => sheet.cut?.state === 'ready');
    await importMarkers(videoId, Buffer.from('0:00 Start\n0:12 The rope'));
    const chapterChoice = { ...NO_CHOICE, colours: [''] };
    await editVideo(videoId, { privacy: 'everyone', summary: 'What it is about.', chapterChoice });
    await sendVideo(videoId);
    const { id } = await untilState(videoId, 'live');
    const theirs = '0:00 Beginning\n0:12 The rope\n\nWhat it is about.';
    await changedAt('lanternfold', 'chapters-there.mp4', { description: theirs });
    await readNow(id);
    const asked = (await requestsOf(database(), id)).map(({ purpose }) => purpose);
    expect(asked).toContain('read again what it shows · /api/videos/…');
    expect((await shows(videoId)).map(({ field }) => field)).toEqual(['chapters', 'text']);
    await settleDifferences(id, { way: 'take over' });
    const { channels } = await lookAtSheet(videoId);
    expect(channels.flatMap(({ ticked, words }) => (ticked ? words?.text : []))).toEqual([theirs]);
    expect(channels.flatMap(({ changes }) => changes)).toEqual([]);
    await readNow(id);
    expect(await shows(videoId)).toEqual([]);
  });

  it('keeps what was changed here and not sent yet apart from what somebody changed there', async () => {
    const videoId = await sent('both.mp4');
    await untilState(videoId, 'live');
    await editVideo(videoId, { summary: 'Changed here.' });
    await changedAt('lanternfold', 'both.mp4', { title: 'Changed there' });
    await untilShows(videoId, 1);
    expect((await shows(videoId)).map(({ field }) => field)).toEqual(['title']);
    await settleDifferences(onlyDrop(await lookAtSheet(videoId)).id, { way: 'take over' });
    expect(await own(videoId)).toMatchObject({ title: 'Changed there' });
    const { channels } = await lookAtSheet(videoId);
    expect(channels.flatMap(({ changes }) => changes.map(({ field }) => field))).toEqual(['text']);
    await reviseVideo(videoId);
    await expect.poll(async () => (await shownAt('both.mp4')).description).toBe('Changed here.');
    expect((await shownAt('both.mp4')).title).toBe('Changed there');
  });

  it('keeps what somebody changed there in other fields when words are sent, and stays closed where they closed it', async () => {
    const videoId = await sent('piecemeal.mp4');
    await untilState(videoId, 'live');
    await untilShows(videoId, 0);
    await changedAt('lanternfold', 'piecemeal.mp4', { title: 'Changed there', visibility: 'closed' });
    // Not even told of yet: the words go out at once.
    await editVideo(videoId, { tags: { way: 'replace', items: ['ours'] } });
    await forgetAsked('lanternfold');
    await reviseVideo(videoId);
    await expect.poll(async () => (await shownAt('piecemeal.mp4')).tags).toEqual(['ours']);
    const live = await untilState(videoId, 'live');
    expect(await shownAt('piecemeal.mp4')).toMatchObject({ title: 'Changed there', visibility: 'closed' });
    await untilShows(videoId, 2);
    expect((await shows(videoId)).map(({ field }) => field)).toEqual(['privacy', 'title']);
    expect(await says(videoId)).toContain('Changed on Lanternfold: privacy is “private”; it was “everyone”');
    const sentFields = (await askedOf('lanternfold'))
      .filter(({ method }) => method === 'PATCH')
      .map(({ fields }) => fields);
    expect(sentFields).toEqual([['tags']]);
    expect(live.stops).toBe(6);
    // A person's word opens it again, and puts the title right.
    await settleDifferences(live.id, { way: 'put right' });
    await expect.poll(async () => (await shownAt('piecemeal.mp4')).visibility).toBe('open');
    expect(await shownAt('piecemeal.mp4')).toMatchObject({ title: 'Piecemeal', tags: ['ours'] });
  });

  it('that its site cannot tell of keeps no other from being read', async () => {
    const [broken, other] = [await sent('cannot-be-read.mp4'), await sent('read-all-the-same.mp4')];
    await untilState(broken, 'live');
    await untilState(other, 'live');
    const { siteVideoId } = await dropOf(broken);
    const failing = { kind: 'answer', status: 500 };
    // Neither alone, nor together with others.
    const paths = [`/api/videos/${siteVideoId}`, '/api/videos?ids'];
    await setFaultsAt('lanternfold', ...paths.map((path) => ({ ...failing, path })));
    await database()('drops').whereIn('videoId', [broken, other]).update({ readAt: null });
    await changedAt('lanternfold', 'read-all-the-same.mp4', { title: 'Changed there' });
    await untilShows(other, 1);
  });

  it('that is gone from its site is told as that', async () => {
    const videoId = await sent('gone-there.mp4');
    await untilState(videoId, 'live');
    await untilShows(videoId, 0);
    await changedAt('lanternfold', 'gone-there.mp4', { channelId: 'none' });
    await untilShows(videoId, 1);
    expect(await shows(videoId)).toEqual([{ part: 'video', field: 'video', meant: 'there', shown: 'gone' }]);
  });
});

describe('a video that need not wait for full quality', () => {
  it('opens with its first version, and the full one is told once it is there', async () => {
    await setFaultsAt('lanternfold', { kind: 'slow processing', match: 'first-plays', seconds: 8, times: 1 });
    const videoId = await sent('first-plays.mp4', 'Marrow Quay', { fullFirst: false });
    await untilState(videoId, 'live');
    const lines = async () => (await dropOf(videoId)).versions?.map((version) => version.lines);
    expect(await lines()).toEqual([240]);
    await expect.poll(lines).toEqual([240, 720]);
    await expect.poll(async () => (await dropOf(videoId)).readAt).toBeDefined();
  });
});

describe('what is kept of the way', () => {
  it('are versions with their times, requests without secrets, and every text that the site was given', async () => {
    const videoId = await sent('kept.mp4');
    await untilState(videoId, 'live');
    const drop = await dropOf(videoId);
    expect(drop.versions?.map(({ of, lines }) => [of, lines])).toEqual([
      ['picture', 240],
      ['picture', 720],
    ]);
    const requests = await requestsOf(database(), drop.id);
    expect(requests.map(({ purpose }) => purpose).join('\n')).toMatch(/open it · \/api\/videos\/…/);
    expect(JSON.stringify(requests)).not.toContain(drop.siteVideoId);
    await forgetAsked('lanternfold');
    await editVideo(videoId, { summary: 'Another text.' });
    await reviseVideo(videoId);
    const texts = async () =>
      (await givenTo(database(), drop.id)).filter(({ part }) => part === 'text').map(({ value }) => value);
    await expect.poll(texts).toEqual(['What it is about.', 'Another text.']);
    const [last, first] = (await lookAtDrop(drop.id)).given;
    expect([last?.now, last?.changes.map(({ field }) => field), first?.now]).toEqual([true, ['text'], false]);
    // What has not changed is not brought over again.
    const asked = (await askedOf('lanternfold')).filter(({ path }) => path.includes(drop.siteVideoId ?? '-'));
    const changes = asked.filter(({ method }) => method !== 'GET').map(({ method, path }) => `${method} ${path}`);
    expect(new Set(changes)).toEqual(new Set([`PATCH /api/videos/${drop.siteVideoId}`]));
  });

  it('is each time that it was handed in for review, with what came of it', async () => {
    await setFaultsAt('stallmarket', {
      ...{ kind: 'turn down', match: 'reviewed', times: 1 },
      ...{ reason: 'The tool is not named', remedy: 'Name it in the text' },
    });
    const videoId = await sent('reviewed.mp4', 'Marrow Quay Tools', { products: ['2000000000053'] });
    const drop = await untilState(videoId, 'snag');
    await editVideo(videoId, { summary: 'A spokeshave.' });
    await actOnDrop(drop.id, { action: 'try again' });
    await untilState(videoId, 'live');
    const reviews = await reviewsOf(database(), [drop.id]);
    expect(reviews.map(({ approved, reason }) => [approved, reason])).toEqual([
      [false, expect.stringContaining('The tool is not named')],
      [true, undefined],
    ]);
    expect(reviews.map(({ given }) => JSON.parse(given ?? '{}').text)).toEqual(['What it is about.', 'A spokeshave.']);
  });
});
