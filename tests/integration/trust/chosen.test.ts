import { beforeAll, describe, expect, it } from 'vitest';
import { instantOf, type Moment, momentAt } from '@/core/release';
import { lookAtHeldOf } from '@/desk/account/connect';
import { actOnDrop } from '@/desk/actions/act-on-drop';
import { settleDifferences } from '@/desk/actions/settle-differences';
import { undo } from '@/desk/changes/changes';
import { bringLocalFile } from '@/desk/cut/bring-local-file';
import { readNow } from '@/desk/differences/read-now';
import { goOnAfterPermission } from '@/desk/drop/go-on';
import { reviseVideo, sendVideo } from '@/desk/drop/send';
import { openTogether } from '@/desk/release/open-together';
import { editOnChannel, editVideo } from '@/desk/video/edit-video';
import { lookAtSheet } from '@/desk/views/look-at-sheet';
import type { DropView } from '@/desk/views/views';
import { database } from '@/store/database';
import { dropById } from '@/store/drop/drops';
import { settings } from '@/store/settings';
import { channelById } from '@/store/site/channels';
import { makeClip } from '../../setup/clips';
import {
  changedAt,
  channelsOfTheYard,
  onlyDrop,
  readVideo,
  setFaultsAt,
  untilSheet,
  untilState,
  videosAt,
} from '../../setup/desk';
import { aWorker } from '../../setup/worker';

// What somebody chooses opens nothing: it opens by a word, or at a time that was still to come when it was set.

const worker = aWorker({ KETTLE_HOLD_SECONDS: '600' });
const clip = makeClip({ name: 'chosen.mp4', seconds: 2 });
const inSeconds = (seconds: number): Moment =>
  momentAt(new Date((Math.ceil(Date.now() / 1000) + seconds) * 1000), 'Europe/Berlin');
const FAR = inSeconds(7200);
const untilOver = (moment: Moment) => expect.poll(() => Date.now()).toBeGreaterThan(instantOf(moment).getTime() + 500);
const TIMED = { privacy: 'everyone', release: 'at a time', opensAt: FAR };
const WORD = { privacy: 'everyone', release: 'on my word', opensAt: FAR };

/** Videos by their names, each held, or live for nobody else, for one test. */
const NAMED = {
  together: WORD,
  past: TIMED,
  back: TIMED,
  'by-itself': WORD,
  'sent-wider': { privacy: 'private' },
  narrower: { privacy: 'everyone' },
  'in-part': { privacy: 'everyone' },
  replaced: TIMED,
  'put-back': TIMED,
  'kept-file': TIMED,
  'again-due': TIMED,
  'closed-there': { privacy: 'everyone' },
  again: { privacy: 'link' },
} as const;
type Name = keyof typeof NAMED;
const ids = {} as Record<Name, string>;
let channelId = '';

beforeAll(async () => {
  channelId = (await channelsOfTheYard()).get('Marrow Quay Films') ?? '';
  for (const [name, fields] of Object.entries(NAMED) as [Name, object][]) {
    ids[name] = await readVideo(clip, `${name}.mp4`, { ...fields, title: name }, 'Marrow Quay Films');
    expect((await sendVideo(ids[name])).notReady).toEqual([]);
  }
  for (const [name, fields] of Object.entries(NAMED)) {
    await untilState(ids[name as Name], 'release' in fields ? 'held' : 'live');
  }
});

const dropOf = async (name: Name): Promise<DropView> => onlyDrop(await lookAtSheet(ids[name]));
const audienceOf = async (name: Name) =>
  (await videosAt('fieldgate')).find(({ fileName }) => fileName === `${name}.mp4`)?.audience;
const until = (name: Name, wished: (drop: DropView) => boolean) =>
  untilSheet(ids[name], (sheet) => wished(onlyDrop(sheet)));
/** Waits until a video asks about its moment, which is over. */
async function untilAsked(name: Name): Promise<void> {
  const { snag } = await untilState(ids[name], 'snag');
  expect(snag).toMatchObject({
    at: 'held',
    kind: 'missed',
    what: expect.stringMatching(/is over, and nobody has said/),
  });
  expect(await audienceOf(name)).toBe('me');
}

describe('what is held and checked', () => {
  it('does not open by “together” without a time, but by the word that says so', async () => {
    await editVideo(ids.together, { release: 'together', opensAt: null });
    await until('together', ({ waiting }) => /by your word/.test(waiting ?? ''));
    expect([await audienceOf('together'), (await dropOf('together')).state]).toEqual(['me', 'held']);
    await openTogether(ids.together);
    await untilState(ids.together, 'live');
    expect(await audienceOf('together')).toBe('public');
  });

  it('asks about a moment that is over, whatever set it', async () => {
    const soon = inSeconds(2);
    await editVideo(ids.past, { release: 'on my word' });
    await editVideo(ids.past, { opensAt: soon });
    await untilOver(soon);
    await editVideo(ids.past, { release: 'at a time' });
    await untilAsked('past');
    // For one channel alone, and by another way to open.
    await editOnChannel(ids.past, { channelId, set: { release: 'together' } });
    await untilAsked('past');
    await editOnChannel(ids.past, { channelId, set: { release: null } });
    await untilAsked('past');
    await editVideo(ids.past, { opensAt: FAR });
    await untilState(ids.past, 'held');
  });

  it('asks where undo goes back to a moment that is over by then', async () => {
    const soon = inSeconds(4);
    await editVideo(ids.back, { opensAt: soon });
    await editVideo(ids.back, { opensAt: FAR });
    await untilOver(soon);
    await undo(ids.back);
    await untilAsked('back');
    await actOnDrop((await dropOf('back')).id, { action: 'open' });
    await untilState(ids.back, 'live');
  });

  it('waits for a word where it is to open by itself from now on; changes that are sent leave time to stop it', async () => {
    const id = ids['by-itself'];
    await editVideo(id, { release: 'by itself' });
    await editVideo(id, { summary: 'Changed' });
    expect((await dropOf('by-itself')).state).toBe('held');
    expect((await reviseVideo(id)).sent).toHaveLength(1);
    await until('by-itself', ({ state, onWord }) => state === 'held' && onWord);
    expect(await audienceOf('by-itself')).toBe('me');
    await actOnDrop((await dropOf('by-itself')).id, { action: 'not yet' });
    await until('by-itself', ({ onWord }) => !onWord);
    expect(await audienceOf('by-itself')).toBe('me');
  });
});

describe('a live video', () => {
  it('that only its owner sees is opened by changes that are sent after the seconds to stop it', async () => {
    const id = ids['sent-wider'];
    await editVideo(id, { privacy: 'everyone' });
    expect((await dropOf('sent-wider')).state).toBe('live');
    expect((await reviseVideo(id)).sent).toHaveLength(1);
    const sheet = await until('sent-wider', ({ state, onWord }) => state === 'held' && onWord);
    expect(await audienceOf('sent-wider')).toBe('me');
    const left = Date.parse(onlyDrop(sheet).opensAt ?? '') - Date.now();
    expect(left).toBeGreaterThan(500_000);
    expect(left).toBeLessThanOrEqual(600_000);
    expect(sheet.channels.flatMap(({ events }) => events.map(({ says }) => says))).toContain(
      'Opens to everyone in 600 s, as you said by sending the changes',
    );
    // Set to fewer people meanwhile, it does not open.
    await editVideo(id, { privacy: 'private' });
    await database()('drops').where({ videoId: id }).update({ nextTryAt: new Date(), wordAt: new Date() });
    await until('sent-wider', ({ state }) => state === 'live' || state === 'held');
    expect(await audienceOf('sent-wider')).toBe('me');
  });

  it('is closed to others as soon as fewer are to see it, without a further press, and nothing else is sent', async () => {
    const id = ids.narrower;
    expect(await audienceOf('narrower')).toBe('public');
    await editVideo(id, { title: 'Not sent yet' });
    for (const [privacy, audience] of [
      ['link', 'address'],
      ['private', 'me'],
    ] as const) {
      await editVideo(id, { privacy });
      await until('narrower', ({ state, openedTo }) => state === 'live' && openedTo === privacy);
      expect(await audienceOf('narrower')).toBe(audience);
      const { changes = [] } = (await lookAtSheet(id)).channels.find(({ drop }) => drop) ?? {};
      expect(changes.map(({ field }) => field)).toEqual(['title']);
    }
    // The way back waits for a press.
    await undo(id);
    const { changes = [] } = (await lookAtSheet(id)).channels.find(({ drop }) => drop) ?? {};
    expect(changes.map(({ field }) => field)).toEqual(['privacy', 'title']);
    expect(await audienceOf('narrower')).toBe('me');
  });

  it('that was closed is opened again to those who saw it, after the seconds to stop it, by the way back beside it', async () => {
    const id = ids.again;
    const { id: dropId } = await dropOf('again');
    const actions = async () => (await lookAtSheet(id)).channels.find(({ drop }) => drop)?.drop?.actions;
    expect(await actions()).not.toContain('open again');
    await actOnDrop(dropId, { action: 'close' });
    const closed = await until('again', ({ state, openedTo }) => state === 'live' && openedTo === 'private');
    expect(closed.channels.find(({ drop }) => drop)?.drop?.closedFrom).toBe('link');
    expect(await actions()).toContain('open again');
    await actOnDrop(dropId, { action: 'open again' });
    await until('again', ({ state, onWord }) => state === 'held' && onWord);
    expect(await audienceOf('again')).toBe('me');
    await actOnDrop(dropId, { action: 'not yet' });
    await actOnDrop(dropId, { action: 'open' });
    await until('again', ({ state, openedTo }) => state === 'live' && openedTo === 'link');
    expect((await dropOf('again')).closedFrom).toBeUndefined();
    await expect(actOnDrop(dropId, { action: 'open again' })).rejects.toThrow('changed meanwhile');
    // Its record says so by itself: nothing stays set for the channel alone.
    expect((await lookAtSheet(id)).channels.find(({ drop }) => drop)?.own).toEqual({});
  });

  it('is closed on the channel that it is set for, also by undo, and stays so while its worker was away', async () => {
    const id = ids['in-part'];
    await editOnChannel(id, { channelId, set: { privacy: 'everyone' } });
    await editVideo(id, { privacy: 'private' });
    expect((await dropOf('in-part')).state).toBe('live');
    await worker.end('SIGKILL');
    await editOnChannel(id, { channelId, set: { privacy: null } });
    expect((await dropOf('in-part')).state).toBe('closing');
    worker.start();
    await until('in-part', ({ state, openedTo }) => state === 'live' && openedTo === 'private');
    expect(await audienceOf('in-part')).toBe('me');
    // Its worker ended after the site had closed it and before that was written down; then it is set to everyone again.
    await worker.end('SIGKILL');
    await editVideo(id, { privacy: 'everyone' });
    await database()('drops')
      .where({ videoId: id })
      .update({ state: 'closing', openedTo: 'everyone', confirmedTo: 'everyone', nextTryAt: new Date() });
    worker.start();
    await until('in-part', ({ state }) => state === 'live');
    expect(await audienceOf('in-part')).toBe('me');
  });
});

describe('what a site shows otherwise', () => {
  it('to fewer people is opened there again after the seconds to stop it', async () => {
    await changedAt('fieldgate', 'closed-there.mp4', { audience: 'me' });
    const { id } = await dropOf('closed-there');
    await readNow(id);
    await settleDifferences(id, { way: 'put right' });
    await until('closed-there', ({ state, onWord }) => state === 'held' && onWord);
    expect(await audienceOf('closed-there')).toBe('me');
    await actOnDrop(id, { action: 'not yet' });
    await actOnDrop(id, { action: 'open' });
    await untilState(ids['closed-there'], 'live');
    expect(await audienceOf('closed-there')).toBe('public');
  });

  it.each(['leave', 'take over'] as const)(
    'before it is open is gone on with by “%s”, and opens after them, too',
    async (way) => {
      const fileName = `accepted-${way.replace(' ', '-')}.mp4`;
      const altered = { kind: 'alter', match: fileName, field: 'description', value: 'Written there.', times: 1 };
      await setFaultsAt('lanternfold', altered);
      const id = await readVideo(clip, fileName, { privacy: 'everyone', title: way }, 'Marrow Quay');
      await sendVideo(id);
      const drop = await untilState(id, 'snag');
      settings().holdSeconds = 600;
      await settleDifferences(drop.id, { way });
      settings().holdSeconds = 0;
      await untilSheet(id, (sheet) => onlyDrop(sheet).state === 'held' && onlyDrop(sheet).onWord);
      const there = (await videosAt('lanternfold')).find((video) => video.fileName === fileName);
      expect(there).toMatchObject({ description: 'Written there.', visibility: 'closed' });
    },
  );
});

describe('a video whose file was replaced while it was held', () => {
  const better = makeClip({ name: 'chosen-better.mp4', seconds: 3 });

  it('asks, and has the new one put behind its link where that is wished, held until its time as before', async () => {
    const id = ids.replaced;
    const opensAt = instantOf(FAR).toISOString();
    const { link } = await dropOf('replaced');
    await bringLocalFile(better, { fileName: 'replaced.mp4', videoId: id, anyway: true });
    const { snag, id: dropId } = await untilState(id, 'snag');
    expect(snag).toMatchObject({ at: 'held', kind: 'file', what: expect.stringContaining('has the one from before') });
    expect((await dropOf('replaced')).linkEnds).toBe(false);
    await actOnDrop(dropId, { action: 'try again' });
    expect((await dropOf('replaced')).link).toBe(link);
    await untilState(id, 'held');
    // Its moment is noted with the first look at what is held.
    const held = { link, opensAt, replacing: false, otherFile: false, onWord: false };
    await expect.poll(() => dropOf('replaced')).toMatchObject(held);
    expect(await audienceOf('replaced')).toBe('me');
    const there = (await videosAt('fieldgate')).filter(({ fileName }) => fileName === 'replaced.mp4');
    expect(there.map(({ seconds }) => Math.round(Number(seconds)))).toEqual([3]);
  });

  it('keeps the one that is there by a word while the new one goes up, and is held with it', async () => {
    const id = ids['kept-file'];
    const { link } = await dropOf('kept-file');
    await bringLocalFile(better, { fileName: 'kept-file.mp4', videoId: id, anyway: true });
    const { id: dropId } = await untilState(id, 'snag');
    await setFaultsAt('fieldgate', { kind: 'slow processing', match: 'kept-file', seconds: 60 });
    await actOnDrop(dropId, { action: 'try again' });
    await until('kept-file', ({ state }) => state === 'settling');
    await actOnDrop(dropId, { action: 'keep the old file' });
    await setFaultsAt('fieldgate');
    // It is asked about once more, since a file that was replaced goes out by a word alone.
    await untilState(id, 'snag');
    expect(await dropOf('kept-file')).toMatchObject({ link, replacing: false, snag: { at: 'held', kind: 'file' } });
    const there = (await videosAt('fieldgate')).filter(({ fileName }) => fileName === 'kept-file.mp4');
    expect(there.map(({ seconds, audience }) => [Math.round(Number(seconds)), audience])).toEqual([[2, 'me']]);
  });

  it('is held again where the former file is taken back into use', async () => {
    const id = ids['put-back'];
    await bringLocalFile(better, { fileName: 'put-back.mp4', videoId: id, anyway: true });
    const { id: dropId } = await untilState(id, 'snag');
    await undo(id);
    await actOnDrop(dropId, { action: 'try again' });
    await untilState(id, 'held');
    expect(await audienceOf('put-back')).toBe('me');
  });
});

describe('an account that is connected again', () => {
  it('opens nothing that became due meanwhile: it asks', async () => {
    const id = ids['again-due'];
    const drop = (await dropById(database(), (await dropOf('again-due')).id)) ?? { id: '', channelId: '' };
    const { accountId = '' } = (await channelById(database(), drop.channelId)) ?? {};
    const soon = inSeconds(5);
    await editVideo(id, { opensAt: soon });
    await until(
      'again-due',
      ({ state, opensAt }) => state === 'held' && Date.parse(opensAt ?? '') === instantOf(soon).getTime(),
    );
    // Before it is disconnected, what is held there is named, what opens first at the top.
    const { first, count } = await lookAtHeldOf(accountId);
    expect(first[0]).toEqual({
      ...{ title: 'again-due', channel: 'Marrow Quay Films' },
      opensAt: instantOf(soon).toISOString(),
    });
    expect(count).toBeGreaterThan(1);
    await worker.end();
    await database()('drops')
      .where({ id: drop.id })
      .update({ state: 'snag', snag: JSON.stringify({ at: 'held', kind: 'permission', what: 'W', remedy: 'R' }) });
    await untilOver(soon);
    worker.start();
    await goOnAfterPermission(accountId);
    await untilAsked('again-due');
  });

  it('opens nothing that was just being opened when its permission ended', async () => {
    const id = ids['by-itself'];
    const drop = (await dropById(database(), (await dropOf('by-itself')).id)) ?? { id: '', channelId: '' };
    const { accountId = '' } = (await channelById(database(), drop.channelId)) ?? {};
    const snag = JSON.stringify({ at: 'opening', kind: 'permission', what: 'W', remedy: 'R' });
    await database()('drops').where({ id: drop.id }).update({ state: 'snag', snag, agreed: null });
    await goOnAfterPermission(accountId);
    await untilState(id, 'held');
    expect([await audienceOf('by-itself'), (await dropOf('by-itself')).onWord]).toEqual(['me', false]);
  });
});
