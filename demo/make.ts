import { createReadStream, existsSync } from 'node:fs';
import { mkdir, stat, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { NO_CHOICE } from '@/core/chapters';
import { announceCut, noteCutArrived } from '@/desk/bring-cut';
import { editVideo, tickChannel } from '@/desk/edit-video';
import { lookAtBoard, lookAtChannels, lookAtSheet } from '@/desk/look';
import { importMarkers } from '@/desk/markers';
import { takeFrameAsPicture } from '@/desk/pictures';
import { makePlaylist } from '@/desk/playlists';
import { sendVideo, setPlaylists } from '@/desk/send';
import { files } from '@/store/files/folder';
import { settings } from '@/store/settings';
import { makeCutFile, markerFile } from './media';
import { type DemoVideo, FAULTS, PLAYLISTS, VIDEOS } from './scenario';
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
  for (const [channel, title] of PLAYLISTS) {
    const at = channels.get(channel);
    if (at && !at.playlists.some((playlist) => playlist.title === title)) await makePlaylist(at.id, { title });
  }
  const playlists = await connectedChannels();
  const there = new Set((await lookAtBoard()).rows.map((row) => row.cut?.fileName));
  for (const video of VIDEOS) {
    if (there.has(video.fileName)) continue;
    const channel = playlists.get(video.channel);
    if (channel) await makeVideo(folder, video, channel);
  }
  await writeFile(path.join(folder, 'made'), new Date().toISOString());
}

type DemoChannel = Awaited<ReturnType<typeof lookAtChannels>>['sites'][number]['accounts'][number]['channels'][number];

async function connectedChannels(): Promise<Map<string, DemoChannel>> {
  const all = async () =>
    (await lookAtChannels()).sites.flatMap((site) => site.accounts.flatMap((each) => each.channels));
  if ((await all()).length === 0) await connectAs('lanternfold', 'wil-tarrant');
  return new Map((await all()).map((channel) => [channel.name, channel]));
}

async function setFaults(): Promise<void> {
  await fetch(`http://127.0.0.1:${settings().sitesPort}/control/faults`, {
    method: 'PUT',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(FAULTS),
  });
}

async function makeVideo(folder: string, video: DemoVideo, channel: DemoChannel): Promise<void> {
  const file = await makeCutFile(folder, video);
  await writeFile(path.join(folder, `${path.parse(video.fileName).name}.edl`), markerFile(video));
  const { size } = await stat(file);
  const { cut } = await announceCut({ fileName: video.fileName, size });
  await files().put(cut.fileKey, createReadStream(file));
  await noteCutArrived(cut.id, size);
  const { title, description, tags, privacy } = video;
  await editVideo(cut.videoId, { ...(title ? { title } : {}), description, tags, privacy });
  await tickChannel(cut.videoId, channel.id, true);
  while ((await lookAtSheet(cut.videoId)).cut?.state === 'reading') await pause(100);
  if (video.markers.length > 0) {
    await importMarkers(cut.videoId, new TextEncoder().encode(markerFile(video)));
    await editVideo(cut.videoId, { chapterChoice: { ...NO_CHOICE, colours: ['green'] } });
  }
  await takeFrameAsPicture(cut.videoId, { seconds: 6.4 });
  const drop = (await lookAtSheet(cut.videoId)).channels.find((each) => each.id === channel.id)?.drop;
  const playlist = channel.playlists.find((each) => each.title === video.playlist);
  if (drop && playlist) await setPlaylists(drop.id, { playlists: [playlist.id] });
  if (video.send) await sendVideo(cut.videoId);
}
