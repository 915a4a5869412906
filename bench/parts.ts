import { mkdtempSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { momentAt } from '@/core/release';
import { makeClip } from '../tests/setup/clips';
import { allowPlentyAt } from '../tests/setup/control';
import { machineWith, measureOn } from './machine';
import { rounded, SHORT, say } from './say';

const VIDEOS = SHORT ? 6 : 1000;
/** As many as one worker gives side by side. */
const AT_ONCE = 4;
/** A video opens so long after the changes are sent. */
const OPENS_IN_SECONDS = SHORT ? 2 : 10;

const folder = mkdtempSync(path.join(os.tmpdir(), 'kettle-bench-'));
const machine = await machineWith(['stand-ins']);
machine.start('worker');
const { addressOf, askedOf, bringFile, channelsOfTheYard, forgetAsked, untilSheet, untilState, videosAt, yardSession } =
  await import('../tests/setup/desk');
const { manyVideos } = await import('../tests/setup/many-videos');
const { database } = await import('@/store/database');
const { askForJobsAnew } = await import('@/store/queue/jobs');
const { channelById } = await import('@/store/site/channels');
const { dropsOf, setDrop } = await import('@/store/drop/drops');
const { noteGivenParts } = await import('@/store/drop/parts');
const { meantWords } = await import('@/desk/drop/meant');
const { profileAt, recordOf } = await import('@/desk/drop/record');
const { site } = await import('@/desk/site/session');
const { editVideo, tickChannel } = await import('@/desk/video/edit-video');
const { sendVideo } = await import('@/desk/drop/send');

/** Does something with each, so many at a time. */
async function each<T>(all: readonly T[], work: (one: T, n: number) => Promise<unknown>): Promise<void> {
  let next = 0;
  const lane = async () => {
    for (let n = next++; n < all.length; n = next++) await work(all[n] as T, n);
  };
  await Promise.all(Array.from({ length: AT_ONCE }, lane));
}

/** Live videos whose site has all that is wanted of them. */
async function liveOn(channelId: string): Promise<{ videoId: string; dropId: string; siteVideoId: string }[]> {
  const db = database();
  const channel = await channelById(db, channelId);
  if (!channel) throw new Error('There is no channel');
  const adapter = site(channel.site);
  const session = await yardSession(channel.site);
  const videoIds = await manyVideos(VIDEOS, [channelId], { states: ['live'] });
  await db('videos')
    .whereIn('id', videoIds)
    .update({ own: JSON.stringify({ privacy: 'private', forChildren: false }) });
  const live: { videoId: string; dropId: string; siteVideoId: string }[] = [];
  await each(videoIds, async (videoId, n) => {
    const [drop] = await dropsOf(db, [videoId]);
    if (!drop) return;
    const file = { fileName: `bench-${n}.mp4`, size: 1000, open: () => process.stdin };
    const { siteVideoId, link } = await adapter.begin(session, channel.siteChannelId, `bench-${n}`, file);
    const sentWith = { site: {}, channel: {}, series: {}, seriesName: '', shelf: {} };
    await setDrop(db, drop.id, { siteVideoId, link, sentWith, confirmedTo: 'private', liveAt: new Date() });
    const meant = meantWords(await recordOf(db, videoId), channel, drop, profileAt(adapter.profile, channel));
    await noteGivenParts(db, drop, meant.parts);
    const { privacy: _, picture: _picture, captions: _captions, playlists: _playlists, ...words } = meant.parts;
    await adapter.gives[0]?.give(session, siteVideoId, words);
    live.push({ videoId, dropId: drop.id, siteVideoId });
  });
  return live;
}

await measureOn(machine, folder, async () => {
  const db = database();
  for (const name of ['lanternfold', 'fieldgate']) await allowPlentyAt(addressOf(name));
  const ids = await channelsOfTheYard();
  const live = await liveOn(ids.get('Marrow Quay') ?? '');
  const adapter = site('lanternfold');
  const session = await yardSession('lanternfold');
  const began = performance.now();
  await each(live, async ({ siteVideoId }) => {
    await adapter.gives[0]?.give(session, siteVideoId, { tags: ['bare'] });
    await adapter.look(session, siteVideoId);
  });
  const bareSeconds = (performance.now() - began) / 1000;

  const clip = makeClip({ name: 'bench-parts.mp4', seconds: 2, size: '160x90' });
  const held = await bringFile(clip, 'none of them', 'opens-meanwhile.mp4');
  await editVideo(held, { privacy: 'everyone', release: 'on my word', forChildren: false });
  await tickChannel(held, ids.get('Marrow Quay Films') ?? '', true);
  await untilSheet(held, ({ cut }) => cut?.state === 'ready', 300);
  await sendVideo(held);
  await untilState(held, 'held', 300);
  await each(live, ({ videoId }) => editVideo(videoId, { tags: { way: 'replace', items: ['oak'] } }));

  await forgetAsked('lanternfold');
  const opens = new Date(Math.ceil(Date.now() / 1000) * 1000 + OPENS_IN_SECONDS * 1000);
  await editVideo(held, { release: 'at a time', opensAt: momentAt(opens, 'UTC') });
  const start = performance.now();
  const dropIds = live.map(({ dropId }) => dropId);
  await askForJobsAnew(db, 'give', dropIds);
  for (;;) {
    if (!(await db('jobs').where({ kind: 'give', state: 'waiting' }).first('id'))) break;
    await pause(50);
  }
  const seconds = (performance.now() - start) / 1000;
  const given = (await db('dropParts').where({ part: 'tags', given: '["oak"]' }).pluck('dropId')).length;
  const asked = await askedOf('lanternfold');
  const changes = asked.filter(({ method }) => method === 'PATCH').length;
  const timesBare = rounded(seconds / bareSeconds, 2);
  const figures = { videos: live.length, given, seconds: rounded(seconds, 1), timesBare };
  const perChange = rounded(changes / live.length, 2);
  await untilState(held, 'live', 300);
  const there = (await videosAt('fieldgate')).find(({ fileName }) => fileName === 'opens-meanwhile.mp4');
  const releaseLateMilliseconds = Date.parse(String(there?.publishedAt)) - opens.getTime();
  say({
    measure: 'one changed field, given to live videos and read back',
    ...{ ...figures, bareSeconds: rounded(bareSeconds, 1), requestsPerChange: perChange, releaseLateMilliseconds },
    aims: {
      ...{ given: { least: live.length }, timesBare: { most: 1.3 }, requestsPerChange: { most: 1 } },
      releaseLateMilliseconds: { most: 1000 },
    },
  });
});
