import { afterEach, beforeAll, describe, expect, it } from 'vitest';
import { instantOf, type Moment, momentAt } from '@/core/release';
import { actOnDrop } from '@/desk/actions/act-on-drop';
import { settleDifferences } from '@/desk/actions/settle-differences';
import { sendVideo } from '@/desk/drop/send';
import { editVideo } from '@/desk/video/edit-video';
import { lookAtSheet } from '@/desk/views/look-at-sheet';
import type { DropView } from '@/desk/views/views';
import { database } from '@/store/database';
import { makeClip } from '../../setup/clips';
import {
  askedOf,
  changedAt,
  channelsOfTheYard,
  forgetAsked,
  onlyDrop,
  readVideo,
  setFaultsAt,
  struckAt,
  untilSheet,
  untilState,
  videosAt,
} from '../../setup/desk';
import { aWorker } from '../../setup/worker';

// What a site was asked is not what it has done; and what somebody does there by hand is heard of.

const worker = aWorker({ KETTLE_LATE_CALL_SECONDS: '25' });
const clip = makeClip({ name: 'release.mp4', seconds: 2 });

/** A whole second, so many from now. */
const inSeconds = (seconds: number): Moment =>
  momentAt(new Date((Math.ceil(Date.now() / 1000) + seconds) * 1000), 'Europe/Berlin');
const FAR = { privacy: 'everyone', release: 'at a time', opensAt: inSeconds(7200) };

const SITES: Record<string, string> = { 'Marrow Quay': 'lanternfold', 'Marrow Quay Films': 'fieldgate' };
/** Videos by their names, each held on its channel for one test. */
const NAMED: Record<string, string> = {
  'away.mp4': 'Marrow Quay Films',
  'conflict.mp4': 'Marrow Quay Films',
  'too-late.mp4': 'Marrow Quay Films',
  'killed.mp4': 'Marrow Quay Films',
  'word-again.mp4': 'Marrow Quay Films',
  'no-answer.mp4': 'Marrow Quay Films',
  'opened-there.mp4': 'Marrow Quay',
  'left-open.mp4': 'Marrow Quay',
  'moved-there.mp4': 'Marrow Quay',
  'not-taken.mp4': 'Marrow Quay',
  'own-clock.mp4': 'Marrow Quay',
  'matched.mp4': 'Marrow Quay',
  'word.mp4': 'Marrow Quay',
  'late-time.mp4': 'Marrow Quay',
};
const videos: Record<string, string> = {};
const idOf = (name: string): string => videos[name] ?? '';

beforeAll(async () => {
  await channelsOfTheYard();
  for (const [name, channel] of Object.entries(NAMED)) {
    videos[name] = await readVideo(clip, name, { ...FAR, title: name.replace('.mp4', '') }, channel);
    expect((await sendVideo(idOf(name))).notReady).toEqual([]);
  }
  for (const id of Object.values(videos)) await untilState(id, 'held');
});
afterEach(async () => {
  for (const site of Object.values(SITES)) await setFaultsAt(site);
});

const dropOf = async (name: string): Promise<DropView> => onlyDrop(await lookAtSheet(idOf(name)));
const atSite = async (name: string) =>
  (await videosAt(SITES[NAMED[name] ?? ''] ?? '')).find((video) => video.fileName === name);
const saysOf = async (name: string) =>
  (await lookAtSheet(idOf(name))).channels.flatMap(({ events }) => events.map(({ says }) => says));
/** Has a worker look at what is held, whose look is due in an hour, until it is in a state by that. */
async function lookUntil(name: string, state: DropView['state']): Promise<DropView> {
  const look = async () => {
    const drop = await dropOf(name);
    // A look that is under way says when the next one is due; then it is asked for once more.
    if (drop.state === 'held')
      await database()('drops')
        .where({ id: drop.id })
        .update({ nextTryAt: new Date(0) });
    return drop.state;
  };
  await expect.poll(look, { interval: 500 }).toBe(state);
  return dropOf(name);
}
/** Until the site has put the opening off, having been asked. */
const untilPutOff = (name: string) =>
  untilSheet(idOf(name), (sheet) => onlyDrop(sheet).state === 'opening' && onlyDrop(sheet).waiting !== undefined);

describe('an opening that was asked for and not confirmed', () => {
  it.each([
    ['is away', 'away.mp4', 503],
    ['says that something is in the way', 'conflict.mp4', 409],
  ])('opens nothing later where the site %s, and title and time are changed meanwhile', async (_, name, status) => {
    const id = idOf(name);
    await setFaultsAt('fieldgate', { kind: 'answer', status, path: '/v2/works' });
    await editVideo(id, { opensAt: inSeconds(4) });
    await untilPutOff(name);
    await editVideo(id, { title: 'Another title' });
    await editVideo(id, { opensAt: FAR.opensAt });
    await setFaultsAt('fieldgate');
    const { opensAt } = onlyDrop(
      await untilSheet(id, (sheet) => onlyDrop(sheet).state === 'held' && onlyDrop(sheet).opensAt !== undefined),
    );
    expect(opensAt).toBe(instantOf(FAR.opensAt).toISOString());
    expect(await atSite(name)).toMatchObject({ headline: 'Another title' });
    expect((await atSite(name))?.publishedAt).toBeUndefined();
  });

  it('is asked about where its time is over by more than was said, in whatever state it waits', async () => {
    const [name, id] = ['too-late.mp4', idOf('too-late.mp4')];
    await setFaultsAt('fieldgate', { kind: 'answer', status: 503, path: '/v2/works' });
    await editVideo(id, { opensAt: inSeconds(4) });
    await untilPutOff(name);
    await editVideo(id, { lateAtMost: 0 });
    await setFaultsAt('fieldgate');
    const { snag } = await untilState(id, 'snag');
    expect(snag).toMatchObject({ kind: 'missed', at: 'held' });
    expect((await atSite(name))?.publishedAt).toBeUndefined();
    // By a word it opens all the same.
    await actOnDrop((await dropOf(name)).id, { action: 'open' });
    await untilState(id, 'live');
    expect((await atSite(name))?.publishedAt).toBeDefined();
  });

  it('that lands after a video was closed is found, and closed again', async () => {
    const [name, id] = ['killed.mp4', idOf('killed.mp4')];
    await setFaultsAt('fieldgate', {
      kind: 'late',
      method: 'PATCH',
      seconds: 6,
      path: String((await atSite(name))?.id),
      times: 1,
    });
    await editVideo(id, { opensAt: inSeconds(3) });
    // Asked, and not answered yet: whoever asked is killed, and its call is still on its way.
    await untilSheet(id, (sheet) => onlyDrop(sheet).state === 'opening' && onlyDrop(sheet).openedTo === 'everyone');
    await expect
      .poll(async () => (await database()('drops').where({ videoId: id }).first('asking'))?.asking)
      .toBeTruthy();
    await worker.end('SIGKILL');
    await actOnDrop((await dropOf(name)).id, { action: 'close' });
    worker.start();
    await expect.poll(async () => (await atSite(name))?.publishedAt).toBeDefined();
    await untilSheet(id, (sheet) => onlyDrop(sheet).state === 'live' && onlyDrop(sheet).openedTo === 'private');
    expect((await atSite(name))?.audience).toBe('me');
  });
});

describe('a word to open', () => {
  it('is to be given again where the site was away, and its title was changed meanwhile', async () => {
    const [name, id] = ['word-again.mp4', idOf('word-again.mp4')];
    await editVideo(id, { release: 'on my word' });
    await setFaultsAt('fieldgate', { kind: 'answer', status: 503, method: 'PATCH', path: '/v2/works' });
    await actOnDrop((await dropOf(name)).id, { action: 'open' });
    await untilPutOff(name);
    await editVideo(id, { title: 'Opened by no word' });
    await setFaultsAt('fieldgate');
    await untilState(id, 'held');
    await expect.poll(async () => (await atSite(name))?.headline).toBe('Opened by no word');
    expect(await dropOf(name)).toMatchObject({ state: 'held', onWord: false });
    expect((await atSite(name))?.publishedAt).toBeUndefined();
  });

  it('whose answer never came may still take effect: a close right after it holds', async () => {
    const [name, id] = ['no-answer.mp4', idOf('no-answer.mp4')];
    await editVideo(id, { release: 'on my word' });
    const { id: drop } = await dropOf(name);
    // It was asked, and the line broke.
    const asking = [{ aim: 'everyone', at: new Date().toISOString(), key: 'broke' }];
    await database()('drops')
      .where({ id: drop })
      .update({ openedTo: 'everyone', asking: JSON.stringify(asking) });
    await actOnDrop(drop, { action: 'close' });
    await expect.poll(async () => (await dropOf(name)).progress?.says).toContain('no call of before');
    // It lands.
    await changedAt('fieldgate', name, { audience: 'public' });
    await untilSheet(id, (sheet) => onlyDrop(sheet).state === 'live');
    expect((await atSite(name))?.audience).toBe('me');
  });
});

describe('what is held', () => {
  it('and is opened there by somebody is noticed and asked about; it can be closed there until its time', async () => {
    const [name, id] = ['opened-there.mp4', idOf('opened-there.mp4')];
    await changedAt('lanternfold', name, { visibility: 'open', publishedAt: new Date().toISOString() });
    const { snag, id: drop } = await lookUntil(name, 'snag');
    expect(snag).toMatchObject({ kind: 'difference', what: 'Somebody has opened it to everyone on Lanternfold' });
    const { channels } = await lookAtSheet(id);
    const actions = channels.flatMap((channel) => channel.drop?.actions ?? []);
    expect(actions).toEqual(expect.arrayContaining(['open', 'close', 'try again']));
    expect(actions).not.toContain('accept');
    await settleDifferences(drop, { way: 'put right' });
    await untilState(id, 'held');
    await expect.poll(async () => (await atSite(name))?.visibility).toBe('closed');
    // Its time is told once more, since it was taken from it.
    await expect.poll(async () => (await atSite(name))?.opensAt).toBe(instantOf(FAR.opensAt).toISOString());
  });

  it('and is opened there by somebody can be left open by a word', async () => {
    const [name, id] = ['left-open.mp4', idOf('left-open.mp4')];
    const there = String((await atSite(name))?.id);
    await changedAt('lanternfold', name, { visibility: 'by-link' });
    const { id: drop } = await lookUntil(name, 'snag');
    await forgetAsked('lanternfold');
    await actOnDrop(drop, { action: 'open' });
    await untilState(id, 'live');
    expect((await atSite(name))?.visibility).toBe('open');
    // It was not closed in between.
    const changes = (await askedOf('lanternfold')).filter(
      ({ method, path }) => method === 'PATCH' && path.includes(there),
    );
    expect(changes).toHaveLength(1);
  });

  it('and whose time somebody has changed there is asked about, then told once more', async () => {
    const name = 'moved-there.mp4';
    const told = async () => (await atSite(name))?.opensAt;
    await expect.poll(told).toBe(instantOf(FAR.opensAt).toISOString());
    await changedAt('lanternfold', name, { opensAt: new Date(Date.now() + 600_000).toISOString() });
    const { snag, id: drop } = await lookUntil(name, 'snag');
    expect(snag?.what).toBe('Somebody has changed the time at which Lanternfold opens it');
    await actOnDrop(drop, { action: 'try again' });
    await expect.poll(told).toBe(instantOf(FAR.opensAt).toISOString());
  });

  it('and whose time its site did not take is told once more, and asks nobody', async () => {
    const [name, id] = ['not-taken.mp4', idOf('not-taken.mp4')];
    const told = async () => (await atSite(name))?.opensAt;
    await expect.poll(told).toBe(instantOf(FAR.opensAt).toISOString());
    const later = inSeconds(9000);
    const path = String((await atSite(name))?.id);
    await setFaultsAt('lanternfold', { kind: 'answer', status: 503, method: 'PATCH', path, times: 1 });
    await editVideo(id, { opensAt: later });
    await expect.poll(told).toBe(instantOf(later).toISOString());
    expect(await saysOf(name)).not.toContainEqual(expect.stringContaining('Somebody'));
    expect((await dropOf(name)).state).toBe('held');
  });

  it('and is opened by its site shortly before the moment, by its own clock, has opened', async () => {
    const [name, id] = ['own-clock.mp4', idOf('own-clock.mp4')];
    const moment = inSeconds(55);
    await editVideo(id, { release: 'first showing', opensAt: moment });
    await expect.poll(async () => (await atSite(name))?.firstShowing).toBe(true);
    await changedAt('lanternfold', name, {
      ...{ visibility: 'open', publishedAt: new Date().toISOString() },
      ...{ opensAt: undefined, opensTo: undefined },
    });
    await lookUntil(name, 'live');
    expect(Date.now()).toBeLessThan(instantOf(moment).getTime());
    expect(await atSite(name)).toMatchObject({ visibility: 'open', firstShowing: true });
    expect((await saysOf(name)).at(-1)).toBe('Live: open to everyone, by the site at its time');
  });

  it('and has a rights match found in it is heard of before its moment, with its ways on', async () => {
    const [name, id] = ['matched.mp4', idOf('matched.mp4')];
    const match = {
      id: 'm1',
      owner: 'Harbour Lane Music',
      work: 'Slow Tide',
      from: 0,
      to: 1,
      wants: 'share',
      state: 'open',
    };
    await changedAt('lanternfold', name, { matches: [match], checks: 'matched' });
    const { snag, id: drop } = await lookUntil(name, 'snag');
    expect(snag).toMatchObject({ kind: 'rights', at: 'held', asks: 'income' });
    await actOnDrop(drop, { action: 'accept' });
    await untilState(id, 'held');
  });

  it('is opened at once by a word, also where the site was told a time', async () => {
    const [name, id] = ['word.mp4', idOf('word.mp4')];
    await expect.poll(async () => (await atSite(name))?.opensAt).toBeDefined();
    await actOnDrop((await dropOf(name)).id, { action: 'open' });
    await untilState(id, 'live');
    // Not left to the site, which would open it in two hours.
    expect((await saysOf(name)).at(-1)).toBe('Live: open to everyone');
    const [due] = (await lookAtSheet(id)).channels.flatMap(({ events }) => events.filter(({ kind }) => kind === 'due'));
    const opened = Date.parse(String((await atSite(name))?.publishedAt));
    // It would take four seconds to wait for the site’s own opening.
    expect(opened - Date.parse(due?.at ?? '')).toBeLessThan(3000);
  });

  it('has the time that was set last, though an earlier one lands after it', async () => {
    const [name, id] = ['late-time.mp4', idOf('late-time.mp4')];
    await expect.poll(async () => (await atSite(name))?.opensAt).toBeDefined();
    const asking = async () => (await database()('drops').where({ videoId: id }).first('asking'))?.asking;
    const [earlier, later] = [inSeconds(1800), inSeconds(3600)];
    const landedThere = async () => (await struckAt('lanternfold'))['late, landed'] ?? 0;
    const landed = await landedThere();
    // What tells the time is late, and lands when its worker is gone.
    await setFaultsAt('lanternfold', {
      kind: 'late',
      method: 'PATCH',
      seconds: 5,
      path: String((await atSite(name))?.id),
      times: 1,
    });
    await editVideo(id, { opensAt: earlier });
    await expect.poll(asking).toBeTruthy();
    await worker.end('SIGKILL');
    worker.start();
    await editVideo(id, { opensAt: later });
    await expect.poll(landedThere).toBe(landed + 1);
    await expect.poll(async () => (await atSite(name))?.opensAt).toBe(instantOf(later).toISOString());
    expect((await dropOf(name)).state).toBe('held');
  });
});
