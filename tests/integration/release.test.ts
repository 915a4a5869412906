import { setTimeout as pause } from 'node:timers/promises';
import ICAL from 'ical.js';
import { afterEach, beforeAll, describe, expect, it } from 'vitest';
import { instantOf, type Moment, momentAt } from '@/core/release';
import { disconnect } from '@/desk/account/connect';
import { renewKey } from '@/desk/account/renew-key';
import { actOnDrop } from '@/desk/actions/act-on-drop';
import { editDefaults } from '@/desk/defaults/defaults';
import { newSeries } from '@/desk/defaults/series';
import { reviseVideo, sendVideo } from '@/desk/drop/send';
import { calendarAddress, calendarFeed, endCalendarAddress, renewCalendarAddress } from '@/desk/release/calendar-feed';
import { clashesOf } from '@/desk/release/clashes';
import { nextPlace } from '@/desk/release/next-place';
import { timesFromFile } from '@/desk/release/times-from-file';
import { editOnChannel, editVideo, tickChannel } from '@/desk/video/edit-video';
import { lookAtCalendar } from '@/desk/views/look-at-calendar';
import { lookAtSheet } from '@/desk/views/look-at-sheet';
import type { SheetView } from '@/desk/views/views';
import { database } from '@/store/database';
import { dropById, moveDrop } from '@/store/drop/drops';
import { noticesKept } from '@/store/notices/notices';
import { settings } from '@/store/settings';
import { makeClip } from '../setup/clips';
import { kettle } from '../setup/command';
import {
  bringFile,
  channelsOfTheYard,
  onlyDrop,
  setFaultsAt,
  untilSheet,
  untilState,
  videosAt,
  yardSession,
} from '../setup/desk';
import { aWorker } from '../setup/worker';

const worker = aWorker();
let ids: Map<string, string>;
let clips = 0;
const clip = makeClip({ name: 'release.mp4', seconds: 2 });

beforeAll(async () => {
  ids = await channelsOfTheYard();
  // All at once: they wait for their sites side by side. Some more than are used, for a second try.
  const made = [...Array<string>(10).fill('Marrow Quay Films'), ...Array<string>(4).fill('Marrow Quay')];
  const videos = await Promise.all(made.map((name) => sent(FAR, name)));
  for (const [n, id] of videos.entries()) {
    await untilState(id, 'held');
    waiting.push({ id, channel: made[n] ?? '' });
  }
});
// What goes wrong in one test leaves no site or worker away for the next.
afterEach(async () => {
  for (const site of ['lanternfold', 'fieldgate']) await setFaultsAt(site);
  if (!worker.isRunning()) worker.start();
});

/** A whole second, so many from now. */
const inSeconds = (seconds: number): Moment =>
  momentAt(new Date((Math.ceil(Date.now() / 1000) + seconds) * 1000), 'America/St_Johns');

/** So far off that it is moved in the test. */
const FAR = { release: 'at a time', opensAt: inSeconds(600) };

/** A new video for channels, with what is set on it, sent. */
async function sent(fields: Record<string, unknown>, ...channels: string[]): Promise<string> {
  clips += 1;
  const title = `Release ${clips}`;
  const id = await bringFile(clip, '', `release-${clips}.mp4`);
  await untilSheet(id, ({ cut }) => cut?.state === 'ready');
  for (const name of channels) await tickChannel(id, ids.get(name) ?? '', true);
  await editVideo(id, { privacy: 'everyone', title, ...fields });
  const { notReady } = await sendVideo(id);
  expect(notReady).toEqual([]);
  return id;
}

/** Videos that are held until a time that is far off, each for one test. */
const waiting: { id: string; channel: string }[] = [];

function heldOn(name: string): string {
  const index = waiting.findIndex(({ channel }) => channel === name);
  const [found] = waiting.splice(index, index < 0 ? 0 : 1);
  if (!found) throw new Error(`No video waits on ${name}`);
  return found.id;
}

const dropOn = (sheet: SheetView, name: string) => sheet.channels.find((channel) => channel.name === name)?.drop;
const says = async (id: string) => (await lookAtSheet(id)).channels.flatMap(({ events }) => events.map((e) => e.says));
const atSite = async (site: string, id: string) => {
  const links = (await lookAtSheet(id)).channels.map(({ drop }) => drop?.link ?? '');
  return (await videosAt(site)).find((video) => links.some((link) => link.endsWith(`/${video.id}`)));
};
const openedAt = async (site: string, id: string) => Date.parse(String((await atSite(site, id))?.publishedAt));

describe('a video that opens at a time', () => {
  it('is opened by Kettle Drop within a second of it, and never before', async () => {
    const id = heldOn('Marrow Quay Films');
    const moment = inSeconds(3);
    await editVideo(id, { opensAt: moment });
    await untilSheet(id, (sheet) => onlyDrop(sheet).opensAt === instantOf(moment).toISOString());
    expect((await atSite('fieldgate', id))?.publishedAt).toBeUndefined();
    await untilState(id, 'live');
    const late = (await openedAt('fieldgate', id)) - instantOf(moment).getTime();
    expect(late).toBeGreaterThanOrEqual(0);
    // Within a second where the machine has nothing else to do: `bench/release.ts`.
    expect(late).toBeLessThan(5000);
  });

  it('is opened by a site that keeps times, which is told another where it is moved, and none where it is called off', async () => {
    const id = heldOn('Marrow Quay');
    const told = async () => (await atSite('lanternfold', id))?.opensAt;
    await expect.poll(told).toBeDefined();
    await editVideo(id, { release: 'on my word' });
    await expect.poll(told).toBeUndefined();
    const moment = inSeconds(7);
    await editVideo(id, { release: 'at a time', opensAt: moment });
    await expect.poll(told).toBe(instantOf(moment).toISOString());
    await untilState(id, 'live');
    const late = (await openedAt('lanternfold', id)) - instantOf(moment).getTime();
    expect(late).toBeGreaterThanOrEqual(0);
    expect(late).toBeLessThan(5000);
    expect((await says(id)).at(-1)).toBe('Live: open to everyone, by the site at its time');
  });

  it('is a first showing where the site has such, is one no longer where that is called off, and opens at its time elsewhere', async () => {
    const id = await sent({ ...FAR, release: 'first showing' }, 'Marrow Quay', 'Marrow Quay Films');
    await untilSheet(id, (sheet) => sheet.channels.filter(({ drop }) => drop?.state === 'held').length === 2);
    const told = async () => (await atSite('lanternfold', id))?.firstShowing === true;
    await expect.poll(told).toBe(true);
    await editVideo(id, { release: 'at a time' });
    await expect.poll(told).toBe(false);
    expect((await atSite('lanternfold', id))?.opensAt).toBeDefined();
    await editVideo(id, { release: 'first showing', opensAt: inSeconds(7) });
    await expect.poll(told).toBe(true);
    await untilSheet(id, (sheet) => sheet.channels.filter(({ drop }) => drop?.state === 'live').length === 2);
  });

  it('is opened all the same where the site forgets', async () => {
    const id = heldOn('Marrow Quay');
    await setFaultsAt('lanternfold', { kind: 'time forgotten' });
    await editVideo(id, { opensAt: inSeconds(7) });
    await untilState(id, 'live');
    // Its site is waited for first.
    expect((await says(id)).at(-1)).toMatch(/^Live: open to everyone, \d+ s late$/);
  });

  it('reaches whom it is meant for: those with the link', async () => {
    const id = await sent({ ...FAR, privacy: 'link' }, 'Marrow Quay');
    await untilState(id, 'held');
    await editVideo(id, { opensAt: inSeconds(3) });
    expect((await atSite('lanternfold', id))?.visibility).toBe('closed');
    await untilState(id, 'live');
    expect((await atSite('lanternfold', id))?.visibility).toBe('by-link');
  });

  it('that is changed after its check is checked once more before it opens', async () => {
    const id = heldOn('Marrow Quay Films');
    await editVideo(id, { opensAt: inSeconds(5) });
    await editVideo(id, { title: 'With another title' });
    await untilState(id, 'live');
    expect((await atSite('fieldgate', id))?.headline).toBe('With another title');
  });
});

describe('a moment that is missed', () => {
  it('is made up for at once where nothing ran then, and told', async () => {
    const id = heldOn('Marrow Quay Films');
    await worker.end();
    await editVideo(id, { opensAt: inSeconds(1) });
    await pause(5000);
    expect((await atSite('fieldgate', id))?.publishedAt).toBeUndefined();
    worker.start();
    await untilState(id, 'live');
    expect(await says(id)).toContainEqual(expect.stringMatching(/^Opens late, by \d+ s$/));
  });

  it('is asked about where it is later than was said; then it opens by a word', async () => {
    const id = heldOn('Marrow Quay Films');
    await worker.end();
    await editVideo(id, { lateAtMost: 0 });
    await editVideo(id, { opensAt: inSeconds(1) });
    await pause(2500);
    worker.start();
    const { snag, actions } = (await untilState(id, 'snag')) as ReturnType<typeof onlyDrop> & { actions: string[] };
    expect(snag).toMatchObject({ kind: 'missed', at: 'held', remedy: 'Open it now, or set another time' });
    expect(actions).toContain('open');
    // Another time, and it waits again; then a word, after all.
    await editVideo(id, { opensAt: inSeconds(600) });
    await untilState(id, 'held');
    await actOnDrop(onlyDrop(await lookAtSheet(id)).id, { action: 'open' });
    await untilState(id, 'live');
  });

  it('is none where the site opened it at its time while nothing ran here: it stays open', async () => {
    const id = heldOn('Marrow Quay');
    const moment = inSeconds(8);
    await editVideo(id, { lateAtMost: 0, opensAt: moment });
    const told = async () => (await atSite('lanternfold', id))?.opensAt;
    await expect.poll(told).toBe(instantOf(moment).toISOString());
    await worker.end();
    await pause(instantOf(moment).getTime() - Date.now() + 1500);
    expect((await atSite('lanternfold', id))?.visibility).toBe('open');
    worker.start();
    await untilState(id, 'live');
    expect((await atSite('lanternfold', id))?.visibility).toBe('open');
    expect((await says(id)).at(-1)).toBe('Live: open to everyone, by the site at its time');
  });

  it('because the site is away is tried each second, and told at once', async () => {
    const id = heldOn('Marrow Quay Films');
    await setFaultsAt('fieldgate', { kind: 'answer', status: 503, path: '/v2/works' });
    await editVideo(id, { opensAt: inSeconds(4) });
    const away = await untilSheet(id, (sheet) => onlyDrop(sheet).overdue === 0);
    expect(onlyDrop(away)).toMatchObject({ state: 'opening', overdue: 0 });
    await setFaultsAt('fieldgate');
    await untilState(id, 'live');
  });
});

describe('a video that opens on all channels together', () => {
  it('opens nowhere before it is checked everywhere, then everywhere at once', async () => {
    await setFaultsAt('fieldgate', { kind: 'slow processing', match: `release-${clips + 1}`, seconds: 5 });
    const id = await sent({ release: 'together' }, 'Marrow Quay', 'Marrow Quay Films');
    const waits = await untilSheet(id, (sheet) => dropOn(sheet, 'Marrow Quay')?.waiting !== undefined);
    expect(dropOn(waits, 'Marrow Quay')).toMatchObject({
      state: 'held',
      waiting: 'Waits until it is checked on Marrow Quay Films',
    });
    await untilSheet(id, ({ channels }) => channels.every(({ drop }) => !drop || drop.state === 'live'));
    const spread = Math.abs((await openedAt('lanternfold', id)) - (await openedAt('fieldgate', id)));
    expect(spread).toBeLessThan(2000);
    await setFaultsAt('fieldgate');
  });

  it('waits no longer for a channel that has another release, or is not ticked any more', async () => {
    const id = await sent({ release: 'together' }, 'Marrow Quay');
    await untilState(id, 'live');
    await setFaultsAt('fieldgate', { kind: 'slow processing', match: `release-${clips + 1}`, seconds: 8 });
    const other = await sent({ release: 'together' }, 'Marrow Quay', 'Marrow Quay Films');
    await untilSheet(other, (sheet) => dropOn(sheet, 'Marrow Quay')?.waiting !== undefined);
    await editOnChannel(other, { channelId: ids.get('Marrow Quay Films'), set: { release: 'on my word' } });
    await untilSheet(other, (sheet) => dropOn(sheet, 'Marrow Quay')?.state === 'live');
    await setFaultsAt('fieldgate');
  });
});

describe('a word to open', () => {
  it('gives way to a time that is set after it, before it took effect', async () => {
    const id = await sent({ release: 'on my word' }, 'Marrow Quay Films');
    const { id: drop } = await untilState(id, 'held');
    await worker.end();
    await actOnDrop(drop, { action: 'open' });
    const moment = inSeconds(6);
    await editVideo(id, { release: 'at a time', opensAt: moment });
    worker.start();
    await untilState(id, 'live');
    expect(await openedAt('fieldgate', id)).toBeGreaterThanOrEqual(instantOf(moment).getTime());
  });

  it('gives way to it also where its moment has come, and the site has not been asked yet', async () => {
    const id = await sent({ release: 'on my word' }, 'Marrow Quay Films');
    const { id: dropId } = await untilState(id, 'held');
    await worker.end();
    await actOnDrop(dropId, { action: 'open' });
    // A worker that ended right after it let the drop go leaves it so.
    const drop = await dropById(database(), dropId);
    if (!drop) throw new Error('there is no drop');
    await moveDrop(database(), drop, 'due', 'Its time has come', { releasedFor: 'on my word' });
    await editVideo(id, FAR);
    worker.start();
    await untilState(id, 'held');
    const { channels } = await lookAtSheet(id);
    expect(channels.flatMap(({ events }) => events.map(({ says }) => says))).toContain(
      'Not opened by your word: another release was set since',
    );
  });

  it('takes effect a little later, and can be taken back until then', async () => {
    const id = heldOn('Marrow Quay Films');
    await editVideo(id, { release: 'on my word' });
    const { id: dropId } = onlyDrop(await lookAtSheet(id));
    const { holdSeconds } = settings();
    settings().holdSeconds = 2;
    try {
      await actOnDrop(dropId, { action: 'open' });
      const waits = onlyDrop(await lookAtSheet(id));
      expect(waits).toMatchObject({ state: 'held', onWord: true });
      expect((waits as { actions?: string[] }).actions).toContain('not yet');
      await actOnDrop(dropId, { action: 'not yet' });
      await pause(2500);
      expect(onlyDrop(await lookAtSheet(id))).toMatchObject({ state: 'held', onWord: false });
      await expect(actOnDrop(dropId, { action: 'not yet' })).rejects.toThrow('It is too late');
      await actOnDrop(dropId, { action: 'open' });
      await untilState(id, 'live');
    } finally {
      settings().holdSeconds = holdSeconds;
    }
  });
});

describe('a permission that is taken back before a release', () => {
  it('is told when it happens, not at the moment', async () => {
    const id = heldOn('Marrow Quay Films');
    const sheet = await lookAtSheet(id);
    await disconnect(sheet.channels.find(({ name }) => name === 'Marrow Quay Films')?.accountId ?? '');
    const { snag } = await untilState(id, 'snag');
    expect(snag).toMatchObject({ kind: 'permission', at: 'held' });
    await yardSession('fieldgate');
    await untilState(id, 'held');
  });
});

describe('the Calendar', () => {
  it('has what is to come, at the time of each channel, and what went out, as it went', async () => {
    const id = await sent(FAR, 'Marrow Quay', 'Marrow Quay Films');
    const later = inSeconds(7200);
    const films = ids.get('Marrow Quay Films') ?? '';
    await editOnChannel(id, { channelId: films, set: { opensAt: later } });
    const span = { from: new Date(Date.now() - 3_600_000), to: new Date(Date.now() + 4 * 3_600_000) };
    const ofIt = async (asked: object = span) =>
      (await lookAtCalendar(asked)).entries.filter(({ videoId }) => videoId === id);
    expect(await ofIt()).toMatchObject([
      { at: instantOf(FAR.opensAt).toISOString(), channel: { name: 'Marrow Quay' }, setHere: false, together: false },
      { at: instantOf(later).toISOString(), channel: { name: 'Marrow Quay Films' }, setHere: true, opensAt: later },
    ]);
    // Moved as one, it is told as one.
    await editVideo(id, { release: 'together' });
    expect((await ofIt()).map(({ together }) => together)).toEqual([true, true]);
    await editVideo(id, { release: FAR.release });
    // The ends belong to one side alone.
    const [first] = await ofIt();
    expect(await ofIt({ from: first?.at, to: new Date(Date.parse(first?.at ?? '') + 1) })).toHaveLength(1);
    expect(await ofIt({ from: new Date(Date.now()), to: first?.at })).toHaveLength(0);

    await untilSheet(id, ({ channels }) => channels.filter(({ drop }) => drop?.state === 'held').length === 2);
    const { id: dropId } = dropOn(await lookAtSheet(id), 'Marrow Quay') as { id: string };
    await actOnDrop(dropId, { action: 'open' });
    await untilSheet(id, (sheet) => dropOn(sheet, 'Marrow Quay')?.state === 'live');
    const [went] = await ofIt();
    expect(went).toMatchObject({ state: 'live', opensAt: null, channel: { name: 'Marrow Quay' } });
    expect(Math.abs(Date.parse(went?.at ?? '') - Date.now())).toBeLessThan(60_000);
    // What nobody else is to see opens to nobody.
    await editVideo(id, { privacy: 'private' });
    expect((await ofIt()).map(({ channel }) => channel.name)).toEqual(['Marrow Quay']);
    await expect(lookAtCalendar({ from: span.to, to: span.from })).rejects.toThrow('at most 100 days');
  });

  it('tells of what only its owner saw once it opens, and keeps what went out where it is closed or removed since', async () => {
    const id = await sent({ privacy: 'private', release: 'by itself' }, 'Marrow Quay Films');
    const { id: dropId } = await untilState(id, 'live');
    const span = { from: new Date(Date.now() - 3_600_000), to: new Date(Date.now() + 3_600_000) };
    const ofIt = async () => (await lookAtCalendar(span)).entries.filter(({ videoId }) => videoId === id);
    expect(await ofIt()).toEqual([]);
    await editVideo(id, { privacy: 'everyone' });
    await reviseVideo(id);
    await expect.poll(async () => (await ofIt()).map(({ since }) => since)).toEqual([undefined]);
    await untilState(id, 'live');
    const told = (await noticesKept(database(), 200)).filter(({ of }) => 'dropId' in of && of.dropId === dropId);
    // What only its owner sees is told to nobody.
    expect(told.map(({ says }) => says)).toEqual(['Live: open to everyone']);
    const [went] = await ofIt();
    await actOnDrop(dropId, { action: 'close' });
    await untilState(id, 'live');
    expect(await ofIt()).toEqual([{ ...went, state: 'removed', since: 'closed' }]);
    // To open once more: both are there.
    const again = inSeconds(1800);
    await editVideo(id, { release: 'at a time', opensAt: again });
    await editOnChannel(id, { channelId: ids.get('Marrow Quay Films') ?? '', set: { privacy: null } });
    await reviseVideo(id);
    await untilState(id, 'held');
    expect(await ofIt()).toMatchObject([
      { at: went?.at, since: 'closed' },
      { at: instantOf(again).toISOString(), since: undefined, opensAt: again },
    ]);
    await actOnDrop(dropId, { action: 'remove' });
    await untilState(id, 'removed');
    expect(await ofIt()).toEqual([{ ...went, state: 'removed', since: 'removed' }]);
  });

  it('takes times from a file for videos by their titles, as they were typed and as they go out', async () => {
    const id = await bringFile(clip, 'Marrow Quay', 'calendar-title.mp4');
    await editVideo(id, { title: 'Tar and oakum' });
    const event = (title: string) =>
      ['BEGIN:VEVENT', 'DTSTART:20991204T180000Z', `SUMMARY:${title}`, 'END:VEVENT'].join('\r\n');
    const file = (...titles: string[]) =>
      Buffer.from(['BEGIN:VCALENDAR', ...titles.map(event), 'END:VCALENDAR'].join('\r\n'));
    const longer = 'Tar and oakum, by hand';
    const before = await timesFromFile(file('Tar and oakum', longer), 'UTC');
    expect(before.offers.map(({ videoId }) => videoId)).toEqual([id]);
    expect(before.notRead).toEqual([{ line: 6, title: longer, why: 'there is no video with this title' }]);
    // In any case, where none is written just so; each time of one that stands twice is there to choose from.
    const twice = await timesFromFile(file('TAR and Oakum', 'tar and oakum'), 'UTC');
    expect(twice.offers.map(({ videoId, line }) => [videoId, line])).toEqual([
      [id, 2],
      [id, 6],
    ]);
    await editOnChannel(id, { channelId: ids.get('Marrow Quay') ?? '', set: { title: longer } });
    expect((await timesFromFile(file(longer.toUpperCase()), 'UTC')).offers).toMatchObject([{ videoId: id }]);
    expect((await timesFromFile(file(longer), 'UTC')).offers).toMatchObject([{ videoId: id, video: 'Tar and oakum' }]);
    const opensAt = { wall: '2099-12-04T18:00:00', zone: 'UTC' };
    expect(before.offers.map(({ set }) => set)).toEqual([{ release: 'at a time', opensAt }]);
    // What is to open together with its others does so, at the time of the file.
    await editVideo(id, { release: 'together' });
    expect((await timesFromFile(file(longer), 'UTC')).offers.map(({ set }) => set)).toEqual([{ opensAt }]);
    await editVideo(id, { opensAt });
    const same = await timesFromFile(file(longer), 'UTC');
    expect(same).toMatchObject({ offers: [], notRead: [{ title: longer, why: 'it opens then already' }] });
    await editVideo(id, { release: 'by itself' });
    await sendVideo(id);
    await untilState(id, 'live');
    const after = await timesFromFile(file(longer), 'UTC');
    expect(after).toMatchObject({ offers: [], notRead: [{ title: longer, why: 'it is live already' }] });
  });
});

describe('kettle open', () => {
  it('takes a time as people say it, for all channels or for one, and tells it again', async () => {
    const id = heldOn('Marrow Quay Films');
    const set = await kettle(['open', id, '--at', 'in 2 h', '--zone', 'Europe/Berlin']);
    expect(set).toMatchObject({ status: 0, said: '', out: expect.stringMatching(/^Opens \w+ \d+ \w+, .* in Europe/) });
    const told = JSON.parse((await kettle(['release', id, '--json'])).out);
    expect(told).toMatchObject([{ channel: 'Marrow Quay Films', release: 'at a time', zone: 'Europe/Berlin' }]);
    expect(Math.abs(Date.parse(told[0].opensAt) - Date.now() - 7_200_000)).toBeLessThan(60_000);
    const wrong = await kettle(['open', id, '--at', 'friday', '--zone', 'Europe/Berlin']);
    expect(wrong).toMatchObject({ status: 1, said: expect.stringContaining('Say the time of day') });
    const together = await kettle(['open', id, '--together']);
    expect(together).toMatchObject({ status: 0, out: 'Opens together, as soon as all are checked\n' });
    await untilState(id, 'live');
  });
});

describe('the Calendar for other programs', () => {
  it('is iCalendar that a registry parser reads back (RFC 5545), at an address that can be renewed', async () => {
    const title =
      'Ice, frost; and a very long title that has to be folded after seventy-five octets: Eisgang im Hafen ⛵';
    const id = await sent({ ...FAR, title }, 'Marrow Quay Films');
    await expect(calendarFeed('anything.ics')).rejects.toThrow('There is no calendar at this address');
    const { address } = await renewCalendarAddress();
    const file = (at = '') => at.split('/').at(-1) ?? '';
    const text = await calendarFeed(file(address));
    // RFC 5545 §3.1: lines end with CRLF, and have at most 75 octets.
    for (const line of text.split('\r\n')) {
      expect(line).not.toContain('\n');
      expect(Buffer.byteLength(line)).toBeLessThanOrEqual(75);
    }
    const events = new ICAL.Component(ICAL.parse(text))
      .getAllSubcomponents('vevent')
      .map((each) => new ICAL.Event(each));
    const event = events.find(({ uid }) => uid.startsWith(id));
    expect(event?.summary).toBe(`${title} · Marrow Quay Films`);
    expect(event?.startDate.toJSDate()).toEqual(instantOf(FAR.opensAt));
    // Moved, it is the same event at another time.
    const later = inSeconds(7200);
    await editVideo(id, { opensAt: later });
    const again = new ICAL.Component(ICAL.parse(await calendarFeed(file(address))));
    const moved = again.getAllSubcomponents('vevent').map((each) => new ICAL.Event(each));
    expect(moved.find(({ uid }) => uid === event?.uid)?.startDate.toJSDate()).toEqual(instantOf(later));

    // The key of the vault may be renewed; another address ends this one.
    await renewKey();
    expect((await calendarAddress()).address).toBe(address);
    const { address: other } = await renewCalendarAddress();
    await expect(calendarFeed(file(address))).rejects.toThrow('There is no calendar');
    expect(await calendarFeed(file(other))).toContain('BEGIN:VCALENDAR');
    await endCalendarAddress();
    await expect(calendarFeed(file(other))).rejects.toThrow('There is no calendar');
  });
});

describe('the rhythm of a series', () => {
  it('offers each new video the next place at which no other of the series opens', async () => {
    const series = await newSeries({ name: 'Frost report', pattern: 'frost-report_{title}' });
    const layer = { layer: 'series', owner: series };
    const [one, two] = [await sent(FAR, 'Marrow Quay Films'), await sent({ release: 'on my word' }, 'Marrow Quay')];
    for (const id of [one, two]) await editVideo(id, { seriesId: series, ...(id === one && { opensAt: null }) });
    expect(await nextPlace(one)).toEqual({});
    const fridays = { rule: 'FREQ=WEEKLY;BYDAY=FR', from: '2026-11-27', time: '18:00', zone: 'Europe/Berlin' };
    await editDefaults(layer, { rhythm: fridays });
    const { place, instant } = await nextPlace(one);
    expect(place).toMatchObject({ wall: expect.stringMatching(/T18:00:00$/), zone: 'Europe/Berlin' });
    expect(new Date(instant ?? '').getUTCDay()).toBe(5);
    expect(await nextPlace(two)).toEqual({ place, instant });
    await editVideo(one, { opensAt: place });
    expect(await nextPlace(one)).toEqual({ place, instant });
    const next = await nextPlace(two);
    expect(Date.parse(next.instant ?? '')).toBeGreaterThan(Date.parse(instant ?? ''));
    // The Calendar has the places that are left.
    // To half a week after the second of them, whatever clocks change until then.
    const span = { from: new Date(), to: new Date(Date.parse(next.instant ?? '') + 10.5 * 86_400_000) };
    const places = (await lookAtCalendar(span)).places.filter(({ seriesId }) => seriesId === series);
    expect(places.map(({ at }) => at)).not.toContain(instant);
    expect(places[0]).toEqual({ seriesId: series, series: 'Frost report', at: next.instant });
    expect(places).toHaveLength(2);
    // Also where a time is set for one channel alone.
    await editOnChannel(two, { channelId: ids.get('Marrow Quay'), set: { opensAt: next.place } });
    await editVideo(one, { opensAt: null });
    expect(await nextPlace(one)).toEqual({ place, instant });
    await expect(editDefaults(layer, { rhythm: { ...fridays, rule: 'FREQ=HOURLY' } })).rejects.toThrow('by days');
  });
});

describe('releases too near to each other on a channel', () => {
  it('are said of both, by the time that the channel is to be left in peace', async () => {
    const films = ids.get('Marrow Quay Films') ?? '';
    const layer = { layer: 'channel', owner: films };
    const one = await sent({ release: 'at a time', opensAt: inSeconds(40 * 3600) }, 'Marrow Quay Films');
    const two = await sent({ release: 'at a time', opensAt: inSeconds(42 * 3600) }, 'Marrow Quay Films');
    const near = async (id: string) => (await clashesOf(id)).clashes.map(({ videoId }) => videoId);
    expect(await near(one)).toEqual([]);
    await editDefaults(layer, { hoursApart: 6 });
    try {
      expect([await near(one), await near(two)]).toEqual([[two], [one]]);
      await editVideo(two, { opensAt: inSeconds(47 * 3600) });
      expect([await near(one), await near(two)]).toEqual([[], []]);
    } finally {
      await editDefaults(layer, { hoursApart: null });
    }
  });
});
