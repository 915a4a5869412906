import { existsSync } from 'node:fs';
import { mkdir, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { NO_CHOICE } from '@/core/chapters';
import { type Moment, timeSaid } from '@/core/release';
import { fraction } from '@/core/time';
import { bringLocalFile } from '@/desk/cut/bring-local-file';
import { editDefaults } from '@/desk/defaults/defaults';
import { editSeries, newSeries } from '@/desk/defaults/series';
import { newShelfLink } from '@/desk/defaults/shelf';
import { sendVideo } from '@/desk/drop/send';
import { setNotices } from '@/desk/notices/set-notices';
import { makePlaylist } from '@/desk/site/playlists';
import { editOnChannel, editVideo, tickChannel } from '@/desk/video/edit-video';
import { importMarkers } from '@/desk/video/markers';
import { takeFrameAsPicture } from '@/desk/video/pictures';
import { lookAtChannels } from '@/desk/views/look';
import { lookAtBoard } from '@/desk/views/look-at-board';
import { lookAtLinks, lookAtSeriesList } from '@/desk/views/look-at-layers';
import { lookAtSheet } from '@/desk/views/look-at-sheet';
import { SITE_PROFILES } from '@/sites/profiles';
import { settings } from '@/store/settings';
import { makeCutFile, markerFile } from './media';
import {
  CHANNEL_DEFAULTS,
  type DemoVideo,
  FAULTS,
  PEOPLE,
  PLAYLISTS,
  SERIES,
  SHELF,
  SITE_DEFAULTS,
  VIDEOS,
} from './scenario';
import { connectAs } from './sign-in';

const demoFolder = () => path.join(settings().home, 'demo');
const isMade = () => existsSync(path.join(demoFolder(), 'made'));

/** Draws the demo's videos, two at a time; what is drawn already stays. */
export async function drawDemo(): Promise<void> {
  if (isMade()) return;
  console.error('Drawing the demo …');
  const waiting = [...VIDEOS];
  const draw = async () => {
    for (let video = waiting.shift(); video; video = waiting.shift()) await makeCutFile(demoFolder(), video);
  };
  await Promise.all([draw(), draw()]);
}

/** Makes the demo once: draws its videos, connects the yard's account and sends what the scenario sends. */
export async function makeDemo(): Promise<void> {
  if (isMade()) return;
  const folder = demoFolder();
  console.error('Making the demo …');
  await mkdir(folder, { recursive: true });
  await setFaults();
  const channels = await connectedChannels();
  await setNoticesToCatcher();
  for (const [channel, title] of PLAYLISTS) {
    const at = channels.get(channel);
    if (at && !at.playlists.some((playlist) => playlist.title === title)) await makePlaylist(at.id, { title });
  }
  const series = await makeLayers(channels);
  for (const video of VIDEOS) {
    if ((await lookAtBoard({ find: video.fileName })).rows.length > 0) continue;
    const channel = channels.get(video.channel);
    if (channel) await makeVideo(folder, video, channel, { channels, series });
  }
  await writeFile(path.join(folder, 'made'), new Date().toISOString());
}

type DemoChannel = Awaited<ReturnType<typeof lookAtChannels>>['sites'][number]['accounts'][number]['channels'][number];

/** The channels of the demo by name, and by `site/name`; accounts that are not connected yet are. */
async function connectedChannels(): Promise<Map<string, DemoChannel>> {
  const { sites } = await lookAtChannels();
  for (const [site, person] of PEOPLE) {
    if (sites.find(({ id }) => id === site)?.accounts.length === 0) await connectAs(site, person);
  }
  const all = (await lookAtChannels()).sites.flatMap((site) => site.accounts.flatMap((each) => each.channels));
  return new Map(
    all.flatMap((channel): [string, DemoChannel][] => [
      [channel.name, channel],
      [`${channel.site}/${channel.name}`, channel],
    ]),
  );
}

/** Puts the yard's links on the shelf and makes its series and defaults; the ids of the series by name are returned. */
async function makeLayers(channels: Map<string, DemoChannel>): Promise<Map<string, string>> {
  const onShelf = new Set((await lookAtLinks()).links.map(({ name }) => name));
  for (const link of SHELF) if (!onShelf.has(link.name)) await newShelfLink(link);
  for (const [site, values] of SITE_DEFAULTS) await editDefaults({ layer: 'site', owner: site }, values);
  for (const [name, values] of CHANNEL_DEFAULTS) {
    const owner = channels.get(name)?.id;
    if (owner) await editDefaults({ layer: 'channel', owner }, values);
  }
  const ids = new Map((await lookAtSeriesList()).series.map(({ name, id }) => [name, id]));
  for (const { name, pattern, channels: wanted, values } of SERIES) {
    const owner = ids.get(name) ?? (await newSeries({ name }));
    ids.set(name, owner);
    await editSeries(owner, { pattern });
    const channelIds = wanted.flatMap((each) => channels.get(each)?.id ?? []);
    await editDefaults({ layer: 'series', owner }, { ...values, channels: channelIds });
  }
  return ids;
}

/** Mail goes to the catcher among the stand-ins, which shows it on a page. */
async function setNoticesToCatcher(): Promise<void> {
  const { sitesPort } = settings();
  const server = { host: '127.0.0.1', port: sitesPort + 5, secure: false, user: '' };
  const email = { ...server, on: true, from: 'kettle-drop@marrow-quay.example', to: 'yard@marrow-quay.example' };
  await setNotices({ set: { email } });
}

async function setFaults(): Promise<void> {
  for (const [site, faults] of Object.entries(FAULTS)) {
    const port = settings().sitesPort + Object.keys(SITE_PROFILES).indexOf(site);
    await fetch(`http://127.0.0.1:${port}/control/faults`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(faults),
    });
  }
}

interface Yard {
  channels: Map<string, DemoChannel>;
  series: Map<string, string>;
}

function momentInYard(text: string): Moment {
  const { wall, zone } = timeSaid(text, new Date(), 'Europe/Berlin');
  return { wall: wall ?? '', zone };
}

async function makeVideo(folder: string, video: DemoVideo, channel: DemoChannel, yard: Yard): Promise<void> {
  const file = await makeCutFile(folder, video);
  await writeFile(path.join(folder, `${path.parse(video.fileName).name}.edl`), markerFile(video));
  const { videoId } = await bringLocalFile(file, { fileName: video.fileName });
  const { title, summary, tags, links, privacy, values, opens } = video;
  if (video.series !== undefined) {
    await editVideo(videoId, { seriesId: yard.series.get(video.series) ?? null });
  }
  await editVideo(videoId, {
    title,
    summary,
    privacy,
    ...values,
    ...(opens && { release: 'at a time', opensAt: momentInYard(opens) }),
    tags: { way: 'add', items: tags },
    links: links && { way: 'add', items: links },
  });
  await tickChannel(videoId, channel.id, true);
  while ((await lookAtSheet(videoId)).cut?.state === 'reading') await pause(100);
  if (video.markers.length > 0) {
    await importMarkers(videoId, new TextEncoder().encode(markerFile(video)));
    await editVideo(videoId, { chapterChoice: { ...NO_CHOICE, colours: ['green'] } });
  }
  await takeFrameAsPicture(videoId, { seconds: 6.4 });
  for (const { channel: name, privacy: own, text } of video.also ?? []) {
    const other = yard.channels.get(name);
    if (!other) continue;
    await tickChannel(videoId, other.id, true);
    if (own || text) await editOnChannel(videoId, { channelId: other.id, set: { privacy: own, text } });
  }
  if (video.upright) {
    const placements = video.upright.map(([seconds, x, comes]) => ({ at: fraction(seconds), x, y: 5000, comes }));
    await editVideo(videoId, { framings: { upright: { percent: 100, placements } } });
  }
  if (video.send) await sendVideo(videoId);
}
