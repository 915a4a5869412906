import path from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { announceCut } from '@/desk/cut/bring-cut';
import { bringLocalFile } from '@/desk/cut/bring-local-file';
import { sessionFor } from '@/desk/site/session';
import { editVideo, tickChannel } from '@/desk/video/edit-video';
import { lookAtChannels } from '@/desk/views/look';
import { lookAtSheet } from '@/desk/views/look-at-sheet';
import type { DropView, SheetView } from '@/desk/views/views';
import type { Session } from '@/sites/contract';
import { SITE_PROFILES } from '@/sites/profiles';
import { database } from '@/store/database';
import type { Cut } from '@/store/record/cuts';
import { settings } from '@/store/settings';
import { connectAs } from '../../demo/sign-in';
import { allowAtAddress, setByControl } from './control';
import { PATIENCE } from './patience';

/** Who speaks for the yard at each site. */
export const YARD: Record<string, string> = {
  lanternfold: 'wil-tarrant',
  fieldgate: 'isa-brandt',
  pipwire: 'tam-okoye',
  stallmarket: 'wil-tarrant',
};

/** The address of a stand-in. */
export const addressOf = (siteId: string) =>
  `http://127.0.0.1:${settings().sitesPort + Object.keys(SITE_PROFILES).indexOf(siteId)}`;

/** Sets the faults of a stand-in; none clears them. */
export const setFaultsAt = (siteId: string, ...faults: Record<string, unknown>[]): Promise<void> =>
  setByControl(addressOf(siteId), 'faults', faults);

/** How often a stand-in's faults have struck, by kind. */
export async function struckAt(siteId: string): Promise<Record<string, number>> {
  const answer = await fetch(`${addressOf(siteId)}/control/struck`);
  return (await answer.json()) as Record<string, number>;
}

/** Sets how many requests of an account a site takes in a span of so many seconds, and whether it tells. */
export const allowAt = (siteId: string, requests: number, seconds: number, told = true): Promise<void> =>
  allowAtAddress(addressOf(siteId), requests, seconds, told);

/** Sets the faults of Lanternfold; none clears them. */
export const setFaults = (...faults: Record<string, unknown>[]) => setFaultsAt('lanternfold', ...faults);

/** Everything that a stand-in keeps of videos. */
export async function videosAt(siteId: string): Promise<Record<string, unknown>[]> {
  return (await fetch(`${addressOf(siteId)}/control/videos`)).json() as Promise<Record<string, unknown>[]>;
}

/** Has somebody change a video on the site's own pages. */
export async function changedAt(siteId: string, fileName: string, fields: Record<string, unknown>): Promise<void> {
  const video = (await videosAt(siteId)).findLast((each) => each.fileName === fileName);
  const init = { method: 'PATCH', headers: { 'content-type': 'application/json' }, body: JSON.stringify(fields) };
  const answer = await fetch(`${addressOf(siteId)}/control/videos/${video?.id}`, init);
  if (!answer.ok) throw new Error(await answer.text());
}

/** A request that a stand-in was asked. */
export interface SiteAsked {
  method: string;
  path: string;
  status: number;
  fields: string[];
}

/** What was asked of a stand-in, the oldest first. */
export async function askedOf(siteId: string): Promise<SiteAsked[]> {
  const asked = await fetch(`${addressOf(siteId)}/control/asked`);
  return (await asked.json()) as SiteAsked[];
}

/** Lets a stand-in forget what it was asked. */
export const forgetAsked = (siteId: string) => fetch(`${addressOf(siteId)}/control/asked`, { method: 'DELETE' });

export const videosAtLanternfold = () => videosAt('lanternfold');

/** A session of the yard's account at a site, connected where it is not. */
export async function yardSession(siteId: string): Promise<Session> {
  const account = async () => {
    const found = (await lookAtChannels()).sites.find(({ id }) => id === siteId);
    return found?.accounts.find(({ state }) => state === 'connected');
  };
  if (!(await account())) await connectAs(siteId, YARD[siteId] ?? '');
  return sessionFor((await account())?.id ?? '');
}

/** The channels of every site by name, all of the yard's accounts being connected. */
export async function channelsOfTheYard(): Promise<Map<string, string>> {
  for (const site of Object.keys(YARD)) await yardSession(site);
  const accounts = (await lookAtChannels()).sites.flatMap((site) => site.accounts);
  return new Map(accounts.flatMap(({ channels }) => channels.map(({ name, id }): [string, string] => [name, id])));
}

/** Connects the yard's account where it is not, and gives the ids of its channels by name. */
export async function connectedChannels(): Promise<Map<string, string>> {
  const all = async () =>
    (await lookAtChannels()).sites.flatMap((site) => site.accounts.flatMap((account) => account.channels));
  const yard = (await all()).some((channel) => channel.connected && channel.name === 'Marrow Quay');
  if (!yard) await connectAs('lanternfold', YARD.lanternfold ?? '');
  return new Map((await all()).map((channel) => [channel.name, channel.id]));
}

/** Brings a file in as a new video, ticked for a channel; a worker has to be running to read it. */
export async function bringFile(
  file: string,
  channel = 'Marrow Quay',
  fileName = path.basename(file),
): Promise<string> {
  const { videoId } = await bringLocalFile(file, { fileName, anyway: true });
  await editVideo(videoId, { forChildren: false });
  const channelId = (await connectedChannels()).get(channel);
  if (channelId) await tickChannel(videoId, channelId, true);
  return videoId;
}

/** A video whose file has been read, for one channel, with what is wished set on it. */
export async function readVideo(
  file: string,
  fileName: string,
  wished: Record<string, unknown>,
  channel = 'Marrow Quay',
): Promise<string> {
  const videoId = await bringFile(file, channel, fileName);
  await untilSheet(videoId, ({ cut }) => cut?.state === 'ready');
  await editVideo(videoId, wished);
  return videoId;
}

/** Announces a file that is not here; no bytes of it come. */
export async function announcedCut(input: { fileName: string; size: number; [field: string]: unknown }): Promise<Cut> {
  const made = await announceCut(input);
  if (!('cut' in made)) throw new Error('It is here already');
  return made.cut;
}

/** Waits until the Sheet of a video is as wished. @throws with the Sheet's drops where it is not in time */
export async function untilSheet(
  videoId: string,
  wished: (sheet: SheetView) => boolean,
  seconds = PATIENCE / 1000,
): Promise<SheetView> {
  const end = Date.now() + seconds * 1000;
  for (;;) {
    const heard = await newestChange();
    const sheet = await lookAtSheet(videoId);
    if (wished(sheet)) return sheet;
    if (Date.now() > end)
      throw new Error(`Not so in ${seconds} s: ${JSON.stringify(sheet.channels.map((each) => each.drop))}`);
    // A look costs much, to hear of a change little. What time alone brings about, nobody announces.
    const looked = Date.now();
    await pause(REST_MILLISECONDS);
    while (Date.now() - looked < LOOK_MILLISECONDS && (await newestChange()) === heard) await pause(HEAR_MILLISECONDS);
  }
}

const LOOK_MILLISECONDS = 1000;
const HEAR_MILLISECONDS = 30;
/** Changes may come by the dozen. */
const REST_MILLISECONDS = 150;

/** The number of the newest change that pages are told of. */
async function newestChange(): Promise<number> {
  const row: { newest?: number | null } | undefined = await database()('feed').max({ newest: 'id' }).first();
  return row?.newest ?? 0;
}

/** The one drop of a video that was sent to one channel. */
export function onlyDrop(sheet: SheetView): DropView {
  const drop = sheet.channels.find((channel) => channel.drop)?.drop;
  if (!drop) throw new Error('There is no drop');
  return drop;
}

/** Waits until the sites of a live video have all that was sent to them. */
export const untilGiven = (videoId: string): Promise<SheetView> =>
  untilSheet(videoId, ({ channels }) =>
    channels.every(({ drop, changes }) => !drop || (drop.state === 'live' && !drop.giving && changes.length === 0)),
  );

/** Waits until the drop of a video is in a state. */
export async function untilState(
  videoId: string,
  state: DropView['state'],
  seconds = PATIENCE / 1000,
): Promise<DropView> {
  const end = Date.now() + seconds * 1000;
  while (Date.now() < end && !(await database()('drops').where({ videoId, state }).first('id'))) {
    await pause(HEAR_MILLISECONDS);
  }
  // It may have gone on since; then its Sheet says where it is.
  return onlyDrop(
    await untilSheet(videoId, (sheet) => sheet.channels.some(({ drop }) => drop?.state === state), seconds),
  );
}
