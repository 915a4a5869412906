import { createReadStream } from 'node:fs';
import { stat } from 'node:fs/promises';
import path from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { announceCut, noteCutArrived } from '@/desk/bring-cut';
import { tickChannel } from '@/desk/edit-video';
import { lookAtChannels, lookAtSheet } from '@/desk/look';
import type { DropView, SheetView } from '@/desk/views';
import { files } from '@/store/files/folder';
import { settings } from '@/store/settings';
import { connectAs } from '../../demo/sign-in';

/** The address of the first stand-in. */
export const lanternfoldAddress = () => `http://127.0.0.1:${settings().sitesPort}`;

/** Sets the faults of Lanternfold; none clears them. */
export async function setFaults(...faults: Record<string, unknown>[]): Promise<void> {
  const init = { method: 'PUT', headers: { 'content-type': 'application/json' }, body: JSON.stringify(faults) };
  const answer = await fetch(`${lanternfoldAddress()}/control/faults`, init);
  if (!answer.ok) throw new Error(await answer.text());
}

/** Everything that Lanternfold keeps of videos. */
export async function videosAtLanternfold(): Promise<Record<string, unknown>[]> {
  return (await fetch(`${lanternfoldAddress()}/control/videos`)).json() as Promise<Record<string, unknown>[]>;
}

/** Connects the yard's account where it is not, and gives the ids of its channels by name. */
export async function connectedChannels(): Promise<Map<string, string>> {
  const all = async () =>
    (await lookAtChannels()).sites.flatMap((site) => site.accounts.flatMap((account) => account.channels));
  const yard = (await all()).some((channel) => channel.connected && channel.name === 'Marrow Quay');
  if (!yard) await connectAs('lanternfold', 'wil-tarrant');
  return new Map((await all()).map((channel) => [channel.name, channel.id]));
}

/** Brings a file in as a new video, ticked for a channel; a worker has to be running to read it. */
export async function bringFile(
  file: string,
  channel = 'Marrow Quay',
  fileName = path.basename(file),
): Promise<string> {
  const { size } = await stat(file);
  const { cut } = await announceCut({ fileName, size });
  await files().put(cut.fileKey, createReadStream(file));
  await noteCutArrived(cut.id, size);
  const channelId = (await connectedChannels()).get(channel);
  if (channelId) await tickChannel(cut.videoId, channelId, true);
  return cut.videoId;
}

/** Waits until the Sheet of a video is as wished. @throws with the Sheet's drops where it is not in time */
export async function untilSheet(
  videoId: string,
  wished: (sheet: SheetView) => boolean,
  seconds = 60,
): Promise<SheetView> {
  const end = Date.now() + seconds * 1000;
  let sheet = await lookAtSheet(videoId);
  while (!wished(sheet)) {
    if (Date.now() > end)
      throw new Error(`Not so in ${seconds} s: ${JSON.stringify(sheet.channels.map((each) => each.drop))}`);
    await pause(50);
    sheet = await lookAtSheet(videoId);
  }
  return sheet;
}

/** The one drop of a video that was sent to one channel. */
export function onlyDrop(sheet: SheetView): DropView {
  const drop = sheet.channels.find((channel) => channel.drop)?.drop;
  if (!drop) throw new Error('There is no drop');
  return drop;
}

/** Waits until the drop of a video is in a state. */
export async function untilState(videoId: string, state: DropView['state'], seconds = 60): Promise<DropView> {
  return onlyDrop(
    await untilSheet(videoId, (sheet) => sheet.channels.some(({ drop }) => drop?.state === state), seconds),
  );
}
