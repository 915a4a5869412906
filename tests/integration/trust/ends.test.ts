import { afterEach, beforeAll, describe, expect, it } from 'vitest';
import { PRIVACIES, type Privacy } from '@/core/delivery';
import { isWider } from '@/core/drop';
import { actOnDrop } from '@/desk/actions/act-on-drop';
import { undo } from '@/desk/changes/changes';
import { reviseVideo, sendVideo } from '@/desk/drop/send';
import { editVideo, tickChannel } from '@/desk/video/edit-video';
import { lookAtSheet } from '@/desk/views/look-at-sheet';
import type { SheetChannel } from '@/desk/views/views';
import { SITE_PROFILES } from '@/sites/profiles';
import { makeClip } from '../../setup/clips';
import {
  bringFile,
  channelsOfTheYard,
  onlyDrop,
  setFaultsAt,
  untilSheet,
  untilState,
  videosAt,
} from '../../setup/desk';
import { aWorker } from '../../setup/worker';

aWorker();
let ids: Map<string, string>;
const clip = makeClip({ name: 'ends.mp4', seconds: 3 });

beforeAll(async () => {
  ids = await channelsOfTheYard();
});
afterEach(async () => {
  for (const site of Object.keys(SITE_PROFILES)) await setFaultsAt(site);
});

/** Channels of the yard, one at each site at which a video can be closed. */
const CLOSING_SITES = [
  ['lanternfold', 'Marrow Quay'],
  ['fieldgate', 'Marrow Quay Films'],
  ['pipwire', '@marrowquay'],
] as const;

async function ready(fileName: string, channel: string): Promise<string> {
  const videoId = await bringFile(clip, 'none of them', fileName);
  await tickChannel(videoId, ids.get(channel) ?? '', true);
  await untilSheet(videoId, (sheet) => sheet.cut?.state === 'ready');
  return videoId;
}

async function tickedChannel(videoId: string): Promise<SheetChannel> {
  const channel = (await lookAtSheet(videoId)).channels.find(({ ticked }) => ticked);
  if (!channel) throw new Error('No channel is ticked');
  return channel;
}

const actionsOf = async (videoId: string) => (await tickedChannel(videoId)).drop?.actions;

const untilLiveAs = (videoId: string, privacy: Privacy) =>
  untilSheet(videoId, (sheet) => {
    const { state, openedTo } = onlyDrop(sheet);
    return state === 'live' && openedTo === privacy;
  });

/** What the site keeps of who may see a video, in our words. */
async function shownTo(site: string, fileName: string): Promise<Privacy> {
  const there = (await videosAt(site)).find((video) => video.fileName === fileName) ?? {};
  if (site === 'pipwire') return there.out ? 'everyone' : 'private';
  const words: Record<string, Privacy> = {
    open: 'everyone',
    'by-link': 'link',
    closed: 'private',
    public: 'everyone',
    address: 'link',
    password: 'password',
    me: 'private',
  };
  return words[String(there.visibility ?? there.audience)] as Privacy;
}

/** A walk over the privacies that goes from each to each other. */
function walk(privacies: readonly Privacy[]): Privacy[] {
  const left = new Map(privacies.map((from) => [from, privacies.filter((to) => to !== from)]));
  // Each way is gone once (Hierholzer's algorithm): a round over all of them, from the first back to it.
  const [path, round]: [Privacy[], Privacy[]] = [[privacies[0] as Privacy], []];
  for (let at = path.at(-1); at; at = path.at(-1)) {
    const next = left.get(at)?.pop();
    if (next) path.push(next);
    else round.unshift(path.pop() as Privacy);
  }
  return round;
}

describe('privacy follows the record in both directions', () => {
  it.each(CLOSING_SITES)('on %s, from each to each other', async (site, channel) => {
    const known = PRIVACIES.filter((each) => each in (SITE_PROFILES[site]?.privacies ?? {}));
    const fileName = `walk-${site}.mp4`;
    const videoId = await ready(fileName, channel);
    await editVideo(videoId, { password: 'oakum-and-tar' });
    const steps = walk(known);
    const pairs = new Set<string>();
    for (const [index, privacy] of steps.entries()) {
      await editVideo(videoId, { privacy });
      if (index === 0) await sendVideo(videoId);
      else {
        const before = steps[index - 1] ?? 'private';
        // Fewer people see it at once, without a further word; more only once that is sent.
        if (isWider(privacy, before)) {
          const { changes } = await tickedChannel(videoId);
          expect(changes.map(({ field }) => field)).toEqual(['privacy']);
          expect((await reviseVideo(videoId)).sent).toHaveLength(1);
        }
        pairs.add(`${before} ${privacy}`);
      }
      const sheet = await untilLiveAs(videoId, privacy);
      expect(await shownTo(site, fileName)).toBe(privacy);
      const watch = await fetch(onlyDrop(sheet).link ?? '');
      expect(watch.status, `the public at ${privacy}`).toBe(
        { private: 404, password: 403, link: 200, everyone: 200 }[privacy],
      );
      expect((await tickedChannel(videoId)).changes).toEqual([]);
    }
    expect(pairs.size).toBe(known.length * (known.length - 1));
  });

  it('is open with the password that was said, and with no other; a new one takes the place of the old', async () => {
    const videoId = await ready('secret-gate.mp4', 'Marrow Quay Films');
    await editVideo(videoId, { privacy: 'password' });
    const missing = (await tickedChannel(videoId)).missing.map(({ what }) => what);
    expect(missing).toContain('Say the password');
    await editVideo(videoId, { password: 'oakum-and-tar' });
    await sendVideo(videoId);
    const { link = '' } = onlyDrop(await untilLiveAs(videoId, 'password'));
    const enter = async (password: string) => {
      const body = new URLSearchParams({ password });
      const said = await fetch(`${link}/password`, { method: 'POST', body, redirect: 'manual' });
      const cookie = said.headers.get('set-cookie')?.split(';')[0] ?? '';
      return (await fetch(link, { headers: { cookie } })).status;
    };
    expect(await enter('pitch')).toBe(403);
    expect(await enter('oakum-and-tar')).toBe(200);
    await editVideo(videoId, { password: 'new-oakum' });
    expect((await tickedChannel(videoId)).changes).toMatchObject([{ field: 'password' }]);
    expect(
      JSON.stringify(await lookAtSheet(videoId).then(({ channels }) => channels.map(({ events }) => events))),
    ).not.toContain('oakum');
    await reviseVideo(videoId);
    await expect.poll(() => enter('new-oakum')).toBe(200);
    expect(await enter('oakum-and-tar')).toBe(403);
  });

  it('fewer see it at once, though a blank keeps the words from going out', async () => {
    const videoId = await ready('narrow-first.mp4', 'Marrow Quay');
    await editVideo(videoId, { privacy: 'everyone' });
    await sendVideo(videoId);
    await untilLiveAs(videoId, 'everyone');
    await editVideo(videoId, { privacy: 'private', summary: 'Ready to send' });
    await reviseVideo(videoId);
    // The blank comes while the worker has the drop, as it would from another window.
    await editVideo(videoId, { summary: 'Gear: {{gear}}' });
    await untilSheet(
      videoId,
      (sheet) => ['snag', 'live'].includes(onlyDrop(sheet).state) && onlyDrop(sheet).openedTo === 'private',
    );
    expect(await shownTo('lanternfold', 'narrow-first.mp4')).toBe('private');
    const there = (await videosAt('lanternfold')).find(({ fileName }) => fileName === 'narrow-first.mp4');
    expect(String(there?.description)).not.toContain('{{');
  });

  it('a video that is set to private on its way is never opened', async () => {
    await setFaultsAt('lanternfold', { kind: 'slow processing', match: 'on-its-way', seconds: 2 });
    const videoId = await ready('on-its-way.mp4', 'Marrow Quay');
    await editVideo(videoId, { privacy: 'everyone' });
    await sendVideo(videoId);
    await untilState(videoId, 'settling');
    await editVideo(videoId, { privacy: 'private' });
    await untilLiveAs(videoId, 'private');
    const there = (await videosAt('lanternfold')).find(({ fileName }) => fileName === 'on-its-way.mp4');
    expect(there).toMatchObject({ visibility: 'closed' });
    expect(there?.publishedAt).toBeUndefined();
  });

  it('where a site cannot close, it says so and does not go out as if', async () => {
    const videoId = await ready('no-closing.mp4', 'Marrow Quay Tools');
    await editVideo(videoId, { privacy: 'private', products: ['2000000000053'] });
    const { notReady } = await sendVideo(videoId);
    expect(notReady[0]?.missing.join()).toContain('only for its owner');
    await editVideo(videoId, { privacy: 'everyone' });
    await sendVideo(videoId);
    const { id } = await untilState(videoId, 'live');
    await editVideo(videoId, { privacy: 'private' });
    await expect(actOnDrop(id, { action: 'revise' })).rejects.toThrow('only for its owner');
    await expect(actOnDrop(id, { action: 'close' })).rejects.toThrow('Remove the video there instead');
  });
});

describe('where a drop ends', () => {
  it('by link and private are ends of their own: done once they are read back', async () => {
    for (const privacy of ['link', 'private'] as const) {
      const videoId = await ready(`end-${privacy}.mp4`, 'Marrow Quay');
      await editVideo(videoId, { privacy });
      await sendVideo(videoId);
      const { state, actions } = (await untilLiveAs(videoId, privacy)).channels.find(({ drop }) => drop)?.drop ?? {};
      expect(state).toBe('live');
      expect(actions).not.toContain('open');
    }
  });

  it('a video that waits for a word, set to private meanwhile, is not opened by it', async () => {
    const videoId = await ready('word.mp4', 'Marrow Quay');
    await editVideo(videoId, { privacy: 'everyone', release: 'on my word' });
    await sendVideo(videoId);
    const { id } = await untilState(videoId, 'held');
    expect(await shownTo('lanternfold', 'word.mp4')).toBe('private');
    await editVideo(videoId, { privacy: 'private' });
    expect((await tickedChannel(videoId)).drop?.actions).not.toContain('open');
    await expect(actOnDrop(id, { action: 'open' })).rejects.toThrow('This video is set to private');
    await reviseVideo(videoId);
    await untilLiveAs(videoId, 'private');
    await editVideo(videoId, { privacy: 'everyone' });
    await reviseVideo(videoId);
    // A word was never given: it waits for one again.
    await untilState(videoId, 'held');
    await actOnDrop(id, { action: 'open' });
    await untilLiveAs(videoId, 'everyone');
  });

  it('is closed at once on one press, with nothing else sent, and the record says so', async () => {
    const videoId = await ready('closed.mp4', 'Marrow Quay Films');
    await editVideo(videoId, { privacy: 'everyone', summary: 'As it was' });
    await sendVideo(videoId);
    const { id } = onlyDrop(await untilLiveAs(videoId, 'everyone'));
    await editVideo(videoId, { summary: 'Changed, not sent' });
    await actOnDrop(id, { action: 'close' });
    await untilLiveAs(videoId, 'private');
    const there = (await videosAt('fieldgate')).find(({ fileName }) => fileName === 'closed.mp4');
    expect(there).toMatchObject({ audience: 'me', about: 'As it was' });
    const { values, changes } = await tickedChannel(videoId);
    expect(values.privacy).toMatchObject({ value: 'private', from: [{ layer: 'drop' }] });
    expect(changes.map(({ field }) => field)).toEqual(['text']);
    await undo(videoId);
    expect((await tickedChannel(videoId)).values.privacy.value).toBe('everyone');
  });

  it('is offered no way back where it never was open, or is to be seen by others anyway', async () => {
    const videoId = await ready('never.mp4', 'Marrow Quay Films');
    await editVideo(videoId, { privacy: 'private' });
    await sendVideo(videoId);
    const { id } = onlyDrop(await untilLiveAs(videoId, 'private'));
    expect(await actionsOf(videoId)).not.toContain('open again');
    await expect(actOnDrop(id, { action: 'open again' })).rejects.toThrow('changed meanwhile');
    await editVideo(videoId, { privacy: 'everyone' });
    await reviseVideo(videoId);
    await untilLiveAs(videoId, 'everyone');
    await editVideo(videoId, { privacy: 'private' });
    await untilLiveAs(videoId, 'private');
    expect(await actionsOf(videoId)).toContain('open again');
    // Then sending the changes is the way.
    await editVideo(videoId, { privacy: 'everyone' });
    expect(await actionsOf(videoId)).not.toContain('open again');
  });
});

describe('a match with other people’s music', () => {
  const matched = async (fileName: string, wants: string, countries?: string[]) => {
    await setFaultsAt('lanternfold', {
      kind: 'rights match',
      match: fileName,
      wants,
      countries,
      reason: 'Harbour Lane Music',
    });
    const videoId = await ready(`${fileName}.mp4`, 'Marrow Quay');
    await editVideo(videoId, { privacy: 'everyone' });
    await sendVideo(videoId);
    return { videoId, drop: await untilState(videoId, 'snag') };
  };

  it.each([
    ['share', 'income'],
    ['silence', 'silence'],
    ['close', 'closing in countries', ['CA', 'US']],
  ])('that asks for %s may be agreed to, and says what it gives', async (wants, asks, countries?: string[]) => {
    const { videoId, drop } = await matched(`match-${wants}`, wants, countries);
    expect(drop.snag).toMatchObject({ kind: 'rights', asks, owner: 'Harbour Lane Music' });
    expect((await tickedChannel(videoId)).drop?.actions).toContain('accept');
    await actOnDrop(drop.id, { action: 'accept' });
    await untilLiveAs(videoId, 'everyone');
  });

  it('that forbids the video cannot be agreed to, here or there, and it stays closed', async () => {
    const { videoId, drop } = await matched('match-closed', 'close');
    expect(drop.snag).toMatchObject({ asks: 'closing', remedy: 'Take it out of the video, or dispute it' });
    const { actions } = (await tickedChannel(videoId)).drop ?? {};
    expect(actions).not.toContain('accept');
    expect(actions).toContain('remove');
    await expect(actOnDrop(drop.id, { action: 'accept' })).rejects.toThrow('cannot be accepted');
    expect(await shownTo('lanternfold', 'match-closed.mp4')).toBe('private');
  });

  it('that a site does not take the agreement for is said, and nothing has moved', async () => {
    const { videoId, drop } = await matched('match-refused', 'share');
    const fault = { kind: 'answer', status: 422, path: '/accept', times: 1 };
    await setFaultsAt('lanternfold', fault);
    await expect(actOnDrop(drop.id, { action: 'accept' })).rejects.toMatchObject({ kind: 'site' });
    expect(onlyDrop(await lookAtSheet(videoId)).state).toBe('snag');
  });
});
