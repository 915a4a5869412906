import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { fieldsTaken } from '@/core/declarations';
import { actOnDrop } from '@/desk/actions/act-on-drop';
import { undo } from '@/desk/changes/changes';
import { sendVideo } from '@/desk/drop/send';
import { makePlaylist } from '@/desk/site/playlists';
import { editOnChannel, editVideo, tickChannel } from '@/desk/video/edit-video';
import { lookAtMissing } from '@/desk/views/look-at-board';
import { lookAtSheet } from '@/desk/views/look-at-sheet';
import type { SheetChannel } from '@/desk/views/views';
import { makeClip } from '../setup/clips';
import { bringFile, channelsOfTheYard, setFaultsAt, untilSheet, untilState, videosAt } from '../setup/desk';
import { aWorker } from '../setup/worker';

aWorker();
const clip = makeClip({ name: 'four-sites-short.mp4', seconds: 3 });
let ids: Map<string, string>;

beforeAll(async () => {
  ids = await channelsOfTheYard();
});
afterAll(async () => {
  await setFaultsAt('stallmarket');
  await setFaultsAt('pipwire');
});

const idOf = (name: string) => ids.get(name) ?? '';

/** A video that was brought in and is ticked for one channel alone. */
async function ready(fileName: string, channel: string): Promise<string> {
  const videoId = await bringFile(clip, 'none of them', fileName);
  await tickChannel(videoId, idOf(channel), true);
  await untilSheet(videoId, (sheet) => sheet.cut?.state === 'ready');
  return videoId;
}

async function channelOf(videoId: string, name: string): Promise<SheetChannel> {
  const found = (await lookAtSheet(videoId)).channels.find((channel) => channel.id === idOf(name));
  if (!found) throw new Error(`There is no channel ${name}`);
  return found;
}

describe('a shop that reviews', () => {
  it('turns a video down with reason and remedy; changed, it is handed in anew and shown by the site itself', async () => {
    await setFaultsAt('stallmarket', {
      kind: 'turn down',
      match: 'strop',
      times: 1,
      reason: 'The strop is not named',
      remedy: 'Name it',
    });
    const videoId = await ready('strop.mp4', 'Marrow Quay Tools');
    await editVideo(videoId, { privacy: 'everyone', products: ['2000000000053'] });
    expect(await sendVideo(videoId)).toEqual({ sent: ['Marrow Quay Tools'], notReady: [] });
    const { id, snag } = await untilState(videoId, 'snag');
    expect(snag).toMatchObject({ kind: 'review', at: 'clearing', remedy: 'Name it' });
    expect(snag?.what).toContain('Turned down in review: The strop is not named');
    await editVideo(videoId, { summary: 'We strop the iron.' });
    await actOnDrop(id, { action: 'try again' });
    await untilState(videoId, 'live');
    const there = (await videosAt('stallmarket')).find((clipThere) => clipThere.fileName === 'strop.mp4');
    expect(there).toMatchObject({ text: 'We strop the iron.', review: 'approved', products: ['2000000000053'] });
  });
});

describe('short posts', () => {
  it('start again from the byte that the site has, wait as a draft, and go out on one word', async () => {
    await setFaultsAt('pipwire', { kind: 'cut', bytes: 30_000, times: 1 });
    const videoId = await ready('a-pip.mp4', '@marrowquay');
    await editVideo(videoId, { privacy: 'everyone', release: 'on my word' });
    await sendVideo(videoId);
    const held = await untilState(videoId, 'held');
    expect((await fetch(held.link ?? '')).status).toBe(404);
    await actOnDrop(held.id, { action: 'open' });
    await untilState(videoId, 'live');
    expect((await fetch(held.link ?? '')).status).toBe(200);
    expect((await videosAt('pipwire')).filter((post) => post.fileName === 'a-pip.mp4')).toHaveLength(1);
  });

  it('are not sent over the limit, whichever way they come', async () => {
    const videoId = await ready('long-pip.mp4', '@marrowquay');
    await editVideo(videoId, { privacy: 'everyone', release: 'on my word' });
    await editOnChannel(videoId, { channelId: idOf('@marrowquay'), set: { text: 'x'.repeat(241) } });
    expect((await sendVideo(videoId)).notReady[0]?.missing[0]).toContain('1 characters over the 240');
    expect(Object.values((await lookAtMissing({ ids: [videoId] }))[videoId] ?? {})).toEqual([1]);
    await editOnChannel(videoId, { channelId: idOf('@marrowquay'), set: { text: 'Short.' } });
    await sendVideo(videoId);
    const held = await untilState(videoId, 'held');
    await actOnDrop(held.id, { action: 'open' });
    await untilState(videoId, 'live');
    await editOnChannel(videoId, { channelId: idOf('@marrowquay'), set: { text: 'x'.repeat(241) } });
    await expect(actOnDrop(held.id, { action: 'revise' })).rejects.toThrow('1 characters over the 240');
  });
});

describe('what is set for one channel alone', () => {
  it('can be undone, and comes back with a tick that was taken off by mistake', async () => {
    const videoId = await ready('own-words.mp4', 'Marrow Quay Films');
    const own = async () => {
      const { ticked, own: words, chosenPlaylists } = await channelOf(videoId, 'Marrow Quay Films');
      return { ticked, words, chosenPlaylists };
    };
    const collection = await makePlaylist(idOf('Marrow Quay Films'), { title: 'Own words' });
    await editOnChannel(videoId, {
      channelId: idOf('Marrow Quay Films'),
      playlists: [collection.sitePlaylistId],
    });
    await editOnChannel(videoId, { channelId: idOf('Marrow Quay Films'), set: { title: 'Its own', privacy: 'link' } });
    const set = { ticked: true, words: { title: 'Its own', privacy: 'link' } };
    expect(await own()).toMatchObject({ ...set, chosenPlaylists: [collection.sitePlaylistId] });
    await tickChannel(videoId, idOf('Marrow Quay Films'), false);
    expect((await own()).ticked).toBe(false);
    await undo(videoId);
    expect(await own()).toMatchObject({ ...set, chosenPlaylists: [collection.sitePlaylistId] });
    await undo(videoId);
    expect((await own()).words).toEqual({});
    // Two fields saved one right after the other, neither knowing of the other.
    const only = { channelId: idOf('Marrow Quay Films') };
    await Promise.all([
      editOnChannel(videoId, { ...only, set: { title: 'Its own' } }),
      editOnChannel(videoId, { ...only, set: { text: 'And its text' } }),
    ]);
    expect((await own()).words).toEqual({ title: 'Its own', text: 'And its text' });
    await editOnChannel(videoId, { ...only, set: { title: ' ' } });
    expect((await own()).words).toEqual({ text: 'And its text' });
    await expect(editOnChannel(videoId, { channelId: idOf('Tide Notes'), set: {} })).rejects.toMatchObject({
      kind: 'not found',
    });
  });
});

describe('adverts', () => {
  it('are asked for only where the channel may earn', async () => {
    const videoId = await ready('adverts.mp4', 'Quay School');
    expect(fieldsTaken((await channelOf(videoId, 'Quay School')).rules.declares)).not.toContain('adverts');
    expect(fieldsTaken((await channelOf(videoId, 'Marrow Quay')).rules.declares)).toContain('adverts');
    await editVideo(videoId, { adverts: 'by interest' });
    await sendVideo(videoId);
    await untilState(videoId, 'live');
  });
});
