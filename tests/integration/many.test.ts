import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { AGREED_TO_NOTHING } from '@/core/release';
import { actOnDrop } from '@/desk/actions/act-on-drop';
import { undo } from '@/desk/changes/changes';
import { sendVideo } from '@/desk/drop/send';
import { askOfMany, lookAtManyActs, type ManyView, stopMany, undoMany } from '@/desk/many/ask-many';
import { doMany } from '@/desk/many/do-many';
import { foreseeMany } from '@/desk/many/foresee-many';
import type { Act } from '@/desk/many/many-act';
import { askToDelete, keepVideo } from '@/desk/video/delete-video';
import { editVideo } from '@/desk/video/edit-video';
import { lookAtBoardIds } from '@/desk/views/look-at-board';
import { lookAtNotices } from '@/desk/views/look-at-notices';
import { lookAtSheet } from '@/desk/views/look-at-sheet';
import { inWindow, windowOfAct } from '@/desk/window';
import { database } from '@/store/database';
import { beginResult, resultsOf } from '@/store/record/many-acts';
import { settings } from '@/store/settings';
import { endProcess, processEnvironment, startProcess } from '../../bin/setup/processes.mjs';
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
} from '../setup/desk';
import { manyVideos } from '../setup/many-videos';
import { aWorker } from '../setup/worker';

const clip = makeClip({ name: 'many.mp4', seconds: 2 });
const worker = aWorker();
let channels: Map<string, string>;
beforeAll(async () => {
  channels = await channelsOfTheYard();
});
afterAll(() => setFaultsAt('lanternfold'));

async function ended(ids: readonly string[], act: Act): Promise<ManyView> {
  const { id } = await askOfMany({ ids, act });
  return untilEnded(id);
}

async function untilEnded(id: string): Promise<ManyView> {
  await expect.poll(async () => (await lookAtManyActs()).find((each) => each.id === id)?.state).toBe('done');
  return (await lookAtManyActs()).find((each) => each.id === id) as ManyView;
}

/** A video that waits on Marrow Quay for a word. */
async function heldVideo(name: string): Promise<string> {
  const id = await readVideo(clip, name, { privacy: 'everyone', release: 'on my word' });
  await sendVideo(id);
  await untilState(id, 'held');
  return id;
}

/** What came of taking an act back. */
async function undone(id: string): Promise<ManyView> {
  await undoMany(id);
  const now = async () => (await lookAtManyActs()).find((each) => each.id === id);
  await expect.poll(async () => (await now())?.state).toBe('undone');
  return (await now()) as ManyView;
}

const ownTags = async (id: string) => (await lookAtSheet(id)).own.tags?.items;

describe('many videos at once', () => {
  it('get a field, and undo takes it from each where nobody has changed it since', async () => {
    const [a = '', b = '', c = ''] = await manyVideos(3, []);
    await editVideo(b, { tags: { way: 'add', items: ['keel'] } });
    const act: Act = { do: 'tags', tags: ['keel', 'oak'] };
    expect(await foreseeMany({ ids: [a, b, c], act })).toMatchObject({ videos: 3, concerned: 3, cannot: [] });
    const done = await ended([a, b, c, a], act);
    expect(done).toMatchObject({ videos: 3, done: 3, changed: 3, failedInAll: 0, mayUndo: true });
    expect(await ownTags(a)).toEqual(['keel', 'oak']);
    expect(await ownTags(b)).toEqual(['keel', 'oak']);
    // In another field, and in the same one.
    await editVideo(a, { summary: 'Changed since' });
    await editVideo(c, { tags: { way: 'replace', items: ['slip'] } });
    expect(await undone(done.id)).toMatchObject({ undone: 2, kept: 1 });
    expect(await ownTags(a)).toBeUndefined();
    expect(await ownTags(b)).toEqual(['keel']);
    expect(await ownTags(c)).toEqual(['slip']);
    expect((await lookAtSheet(a)).summary).toBe('Changed since');
    await expect(undoMany(done.id)).rejects.toThrow('cannot be undone');
    // Each video's own undo is as it always is.
    await undo(c);
    await undo(c);
    expect(await ownTags(c)).toBeUndefined();
  });

  it('say for each what could not be done, and go on with the others', async () => {
    const ids = await manyVideos(2, []);
    const gone = crypto.randomUUID();
    const series = '01a00000-0000-7000-8000-000000000000';
    const done = await ended([...ids, gone], { do: 'series', seriesId: series });
    expect(done).toMatchObject({ done: 3, changed: 0, failedInAll: 2, mayUndo: false });
    expect(done.failed[0]?.why).toContain('series');
    const about = 'Putting in a series: 3 videos';
    const told = (await lookAtNotices()).notices.filter(({ video }) => video === about);
    expect(told).toMatchObject([{ kind: 'needs you', count: 1, leadsTo: '/' }]);
    expect(told[0]?.says).toMatch(/^Not done for 2 videos\. “.+”: .*series.*; .*“.+”: .*series/);
  });

  it('are told of when they are done, where that took a while, and what was quick is not', async () => {
    const ids = await manyVideos(2, []);
    const about = 'Adding tags to: 2 videos';
    const told = async () => (await lookAtNotices()).notices.filter(({ video }) => video === about);
    await ended(ids, { do: 'tags', tags: ['quick'] });
    expect(await told()).toEqual([]);
    await worker.end();
    const { id } = await askOfMany({ ids, act: { do: 'tags', tags: ['slow'] } });
    await database()('manyActs')
      .where({ id })
      .update({ askedAt: new Date(Date.now() - 61_000) });
    await worker.start();
    await untilEnded(id);
    expect(await told()).toMatchObject([{ kind: 'done', says: 'All of them are done.' }]);
  });

  it.each([
    [{ ids: [], act: { do: 'send' } }, 'Select a video first'],
    [{ ids: ['x'], act: { do: 'send' } }, 'ids[0]'],
    [{ ids: [crypto.randomUUID()], act: { do: 'burn' } }, 'act.do'],
    [{ ids: [crypto.randomUUID()], act: { do: 'set', field: 'title', value: 'x' } }, 'act.field'],
    [{ ids: [crypto.randomUUID()], act: { do: 'set', field: 'privacy', value: 'the world' } }, 'privacy'],
    [{ ids: [crypto.randomUUID()], act: { do: 'tags', tags: [] } }, 'Type a tag first'],
    [{ ids: [crypto.randomUUID()], act: { do: 'playlist', title: ' ' } }, 'Name a playlist first'],
  ])('refuse %j', async (input, says) => {
    await expect(askOfMany(input)).rejects.toThrow(says);
  });

  it('go on where a worker was killed, and undo knows what had been changed just before', async () => {
    const ids = await manyVideos(4, []);
    await worker.end('SIGKILL');
    const { id } = await askOfMany({ ids, act: { do: 'set', field: 'privacy', value: 'link' } satisfies Act });
    // Killed after the first was changed and before that was written down.
    await inWindow(windowOfAct(id), () => editVideo(ids[0] ?? '', { privacy: 'link' }));
    await doMany(id, () => undefined, new AbortController().signal);
    expect((await lookAtManyActs())[0]).toMatchObject({ id, done: 4, changed: 4 });
    await undoMany(id);
    // Killed again, after the first was taken back and before that was written down.
    await undo(ids[0] ?? '');
    await doMany(id, () => undefined, new AbortController().signal);
    expect((await lookAtManyActs())[0]).toMatchObject({ id, state: 'undone', undone: 4, kept: 0 });
    for (const each of ids) expect((await lookAtSheet(each)).own.privacy).toBe('everyone');
    worker.start();
  });

  it('keep what two windows put to them at the same time, with three workers, of which one is killed', async () => {
    const ids = await manyVideos(120, []);
    const acts: Act[] = [
      { do: 'tags', tags: ['keel'] },
      { do: 'tags', tags: ['oak'] },
      { do: 'tags', tags: ['keel', 'larch'] },
      { do: 'playlist', title: 'Boats' },
    ];
    const more = [1, 2].map(() => startProcess(path.resolve('.'), 'worker', processEnvironment(path.resolve('.'))));
    try {
      const asked = await Promise.all(acts.map((act) => askOfMany({ ids, act })));
      const doneOf = async () => (await lookAtManyActs()).find(({ id }) => id === asked[0]?.id)?.done ?? 0;
      await expect.poll(doneOf, { interval: 20 }).toBeGreaterThan(20);
      await worker.end('SIGKILL');
      worker.start();
      const ends = await Promise.all(asked.map(({ id }) => untilEnded(id)));
      for (const end of ends) expect(end).toMatchObject({ videos: 120, done: 120, failedInAll: 0 });
      const videos = await database()('videos').whereIn('id', ids).select('own');
      const owns = videos.map(({ own }) => (typeof own === 'string' ? JSON.parse(own) : own));
      for (const own of owns) {
        expect([...own.tags.items].sort()).toEqual(['keel', 'larch', 'oak']);
        expect(own.playlists.items).toEqual(['Boats']);
      }
      const results = await database()('manyResults')
        .whereIn(
          'actId',
          asked.map(({ id }) => id),
        )
        .count({ all: '*' });
      expect(Number(results[0]?.all)).toBe(4 * 120);
    } finally {
      await Promise.all(more.map((child) => endProcess(child)));
    }
  });

  it('are sent where they are ready, and what was removed stays away', async () => {
    const ready = await bringFile(clip, 'Marrow Quay', 'many-ready.mp4');
    const open = await bringFile(clip, 'Marrow Quay', 'many-open.mp4');
    const lacks = await bringFile(clip, 'none', 'many-lacks.mp4');
    const ids = [ready, open, lacks];
    for (const id of ids) await untilSheet(id, ({ cut }) => cut?.state === 'ready');
    await editVideo(ready, { privacy: 'everyone', release: 'on my word' });
    await editVideo(open, { privacy: 'everyone', release: 'by itself' });
    await editVideo(lacks, { title: 'x'.repeat(100) });
    const { tickChannel } = await import('@/desk/video/edit-video');
    await tickChannel(lacks, channels.get('Tide Notes') ?? '', true);
    const seen = await foreseeMany({ ids, act: { do: 'send' } });
    expect(seen).toMatchObject({ videos: 3, concerned: 2, places: 2, opening: 1 });
    expect(seen.cannot).toHaveLength(1);
    const done = await ended(ids, { do: 'send' });
    expect(done).toMatchObject({ changed: 2, failedInAll: 1, mayUndo: false });
    expect(done.failed[0]).toMatchObject({ videoId: lacks, why: expect.stringContaining('Tide Notes') });
    await untilState(ready, 'held');
    await untilState(open, 'live');
    expect(await foreseeMany({ ids, act: { do: 'open' } })).toMatchObject({ concerned: 1, places: 1 });
    expect(await ended(ids, { do: 'open' })).toMatchObject({ changed: 1, failedInAll: 0 });
    await untilState(ready, 'live');
    // Sent once more, nothing goes twice.
    expect(await ended([ready, open], { do: 'send' })).toMatchObject({ changed: 0 });
  });

  it('are not opened a second time where a worker was killed in the middle, but told of', async () => {
    const held = await heldVideo('many-killed.mp4');
    await worker.end('SIGKILL');
    const { id } = await askOfMany({ ids: [held], act: { do: 'open' } satisfies Act });
    // It was opened, and taken back by a person; that the act was behind it was not written down.
    await beginResult(database(), id, held, 'many-killed');
    await doMany(id, () => undefined, new AbortController().signal);
    const [act] = await lookAtManyActs();
    expect(act).toMatchObject({ id, state: 'done', changed: 0, failedInAll: 1 });
    expect(act?.failed[0]?.why).toContain('Look whether it was done');
    expect(onlyDrop(await lookAtSheet(held))).toMatchObject({ state: 'held', onWord: false });
    worker.start();
  });

  it('that are being opened can be stopped, all of them, until their word takes effect', async () => {
    const ids = [await heldVideo('many-stop-a.mp4'), await heldVideo('many-stop-b.mp4')];
    await worker.end();
    const { holdSeconds } = settings();
    settings().holdSeconds = 30;
    try {
      const { id } = await askOfMany({ ids, act: { do: 'open' } satisfies Act });
      await doMany(id, () => undefined, new AbortController().signal);
      const [act] = await lookAtManyActs();
      expect(act).toMatchObject({ id, state: 'done', changed: 2, mayStop: true });
      const left = Date.parse(act?.opensUntil ?? '') - Date.now();
      expect(left).toBeGreaterThan(20_000);
      expect(left).toBeLessThanOrEqual(30_000);
      expect(await stopMany(id)).toEqual({ notOpened: 2 });
      for (const video of ids) expect(onlyDrop(await lookAtSheet(video))).toMatchObject({ onWord: false });
      expect((await lookAtManyActs())[0]).toMatchObject({ state: 'stopped', mayStop: false });
      expect((await lookAtManyActs())[0]?.opensUntil).toBeUndefined();
    } finally {
      settings().holdSeconds = holdSeconds;
      worker.start();
    }
  });

  it('that are in hand as an act is stopped are not opened either', async () => {
    const [first, second] = [await heldVideo('many-in-hand-a.mp4'), await heldVideo('many-in-hand-b.mp4')];
    await worker.end();
    const { holdSeconds } = settings();
    settings().holdSeconds = 30;
    try {
      const { id } = await askOfMany({ ids: [first, second], act: { do: 'open' } satisfies Act });
      const opened = doMany(id, () => undefined, new AbortController().signal);
      await expect.poll(async () => (await resultsOf(database(), id)).length, { interval: 1 }).toBeGreaterThan(0);
      await stopMany(id);
      await opened;
      for (const video of [first, second]) expect(onlyDrop(await lookAtSheet(video)).onWord).toBe(false);
    } finally {
      settings().holdSeconds = holdSeconds;
      worker.start();
    }
  });

  it('are left as they are from where an act is stopped; what it did is undone', async () => {
    const ids = await manyVideos(6, [], { from: 60_000 });
    await worker.end();
    const { id } = await askOfMany({ ids, act: { do: 'tags', tags: ['stopped'] } satisfies Act });
    let behind = 0;
    await doMany(
      id,
      (done) => {
        behind = done;
        if (done === 2) void stopMany(id);
      },
      new AbortController().signal,
    );
    expect(behind).toBeLessThan(6);
    const [act] = await lookAtManyActs();
    expect(act).toMatchObject({ id, state: 'stopped', done: behind, changed: behind, mayUndo: true });
    await expect(stopMany(id)).rejects.toThrow('It is over already');
    worker.start();
    expect(await undone(id)).toMatchObject({ undone: behind, kept: 0 });
    expect(await ownTags(ids[0] ?? '')).toBeUndefined();
  });

  it('have one act at a time: the later, about some of the same, waits until the earlier is over', async () => {
    const ids = await manyVideos(3, [], { from: 61_000 });
    await worker.end();
    const set = (value: string): Act => ({ do: 'set', field: 'privacy', value });
    const first = await askOfMany({ ids: ids.slice(0, 2), act: set('link') });
    const second = await askOfMany({ ids: ids.slice(1), act: set('private') });
    const other = await askOfMany({ ids: await manyVideos(1, [], { from: 62_000 }), act: set('private') });
    const run = ({ id }: { id: string }) => doMany(id, () => undefined, new AbortController().signal);
    expect(await run(second)).toBe(false);
    expect(await run(other)).toBe(true);
    expect(await run(first)).toBe(true);
    expect(await run(second)).toBe(true);
    const privacies = await Promise.all(ids.map(async (id) => (await lookAtSheet(id)).own.privacy));
    expect(privacies).toEqual(['link', 'private', 'private']);
    worker.start();
  });

  it('are counted where a change closes them to others; what is on its way opens by no change', async () => {
    await worker.end();
    const films = [channels.get('Marrow Quay Films') ?? ''];
    const ids = await manyVideos(4, films, { from: 63_000, states: ['live', 'settling', 'live', 'draft'] });
    for (const id of ids) await editVideo(id, { privacy: 'everyone', release: 'by itself' });
    const ofLive = () => database()('drops').whereIn('videoId', ids).where({ state: 'live' });
    await ofLive().where({ videoId: ids[0] }).update({ openedTo: 'everyone', confirmedTo: 'everyone' });
    await ofLive().where({ videoId: ids[2] }).update({ openedTo: 'link', confirmedTo: 'link' });
    const set = (value: string): Act => ({ do: 'set', field: 'privacy', value });
    const foreseen = (value: string) => foreseeMany({ ids, act: set(value) });
    expect(await foreseen('link')).toMatchObject({ concerned: 4, opening: 0, closing: 1 });
    expect(await foreseen('private')).toMatchObject({ concerned: 4, opening: 0, closing: 2 });
    expect(await foreseen('everyone')).toMatchObject({ opening: 0, closing: 0 });
    for (const id of ids) await editVideo(id, { privacy: 'link' });
    for (const id of ids) await editVideo(id, { privacy: 'everyone' });
    const onItsWay = await database()('drops').where({ videoId: ids[1] }).first('agreed');
    expect(JSON.parse(onItsWay.agreed)).toEqual(AGREED_TO_NOTHING);
    worker.start();
  });

  it('are deleted, at their sites first; one that a site keeps stays here and says so', async () => {
    // One after the other: a file that is just coming in is gone on with, not taken twice.
    const a = await bringFile(clip, 'Marrow Quay', 'many-a.mp4');
    const b = await bringFile(clip, 'Marrow Quay', 'many-b.mp4');
    const ids = [a, b];
    for (const id of ids) await untilSheet(id, ({ cut }) => cut?.state === 'ready');
    await ended(ids, { do: 'send' });
    for (const id of ids) await untilState(id, 'live');
    expect(await foreseeMany({ ids, act: { do: 'delete' } })).toMatchObject({ concerned: 2, places: 2 });
    await ended([a], { do: 'delete' });
    await expect
      .poll(() =>
        lookAtSheet(a).then(
          () => 'here',
          () => 'gone',
        ),
      )
      .toBe('gone');
    const there = async (name: string) => (await videosAt('lanternfold')).filter(({ fileName }) => fileName === name);
    expect(await there('many-a.mp4')).toEqual([]);
    await setFaultsAt('lanternfold', { kind: 'answer', status: 422, path: '/api/videos', times: 1 });
    expect(await askToDelete(b)).toBe(false);
    await untilState(b, 'snag');
    // Kept after all, it stays when its site has removed it; asked once more, it goes.
    expect((await lookAtSheet(b)).deleteAsked).toBe(true);
    await keepVideo(b);
    await setFaultsAt('lanternfold');
    const { drop } = (await lookAtSheet(b)).channels.find(({ ticked }) => ticked) ?? {};
    await actOnDrop(drop?.id ?? '', { action: 'try again' });
    await untilState(b, 'removed');
    expect((await lookAtSheet(b)).deleteAsked).toBe(false);
    expect(await askToDelete(b)).toBe(true);
    await expect
      .poll(() =>
        lookAtSheet(b).then(
          () => 'here',
          () => 'gone',
        ),
      )
      .toBe('gone');
    expect(await there('many-b.mp4')).toEqual([]);
  });

  it('are all that fit what the Board shows', async () => {
    const ids = await manyVideos(30, [], { from: 70_000 });
    expect(new Set((await lookAtBoardIds({ find: 'Plank 700' })).ids)).toEqual(new Set(ids));
    const [{ acts } = { acts: 0 }] = await database()('manyActs').count({ acts: '*' });
    expect(acts).toBeGreaterThan(5);
  });
});
