import { setTimeout as pause } from 'node:timers/promises';
import { OPEN_TO } from '@/core/drop';
import { actOnDrop, type DropAction } from '@/desk/actions/act-on-drop';
import { DeskError } from '@/desk/desk-error';
import { discardVideo } from '@/desk/video/delete-video';
import { lookAtSheet } from '@/desk/views/look-at-sheet';
import { dropWords } from '@/ui/drop-words';
import { channelsNamed } from './named/channel';
import { zoneHere } from './named/moment';
import { videoNamed } from './named/video';
import { watch } from './watch';

const DONE: Record<DropAction, string> = {
  open: 'Opens now',
  'not yet': 'Not opened: taken back',
  'try again': 'Trying again',
  accept: 'Accepted',
  revise: 'Sending what has changed',
  'take over': 'Sending again with current defaults',
  'new file': 'Sending the new file; the video there stays until it is checked',
  'new file, remove': 'Sending the new file; the video there stays until it is checked',
  'keep the old file': 'The old file stays',
  close: 'Closing: private',
  'open again': 'Opening it again',
  remove: 'Being removed',
};

export interface ActOptions {
  channel?: string[];
  watch?: boolean;
  /** Without the seconds in which it can be stopped. */
  now?: boolean;
}

/** Does with a video's drops what the pages can do with them: at the channels named, or at all where it may be done. */
export async function act(action: DropAction, name: string, options: ActOptions): Promise<void> {
  const id = await videoNamed(name);
  const named = await channelsNamed(options.channel ?? []);
  const { channels } = await lookAtSheet(id);
  const there = channels.filter(({ id: channel, drop }) => drop && (named.length === 0 || named.includes(channel)));
  // A match in a live video stands on its own page, and is agreed to here, too.
  const may = there.filter(({ drop }) => drop?.actions.includes(action) || (action === 'accept' && drop?.matched));
  const not = named.filter((channel) => !may.some((each) => each.id === channel));
  for (const channel of not) {
    process.exitCode = 1;
    const one = channels.find((each) => each.id === channel);
    console.error(`${one?.name}: this cannot be done now (${one?.drop?.state ?? 'not ticked'}).`);
  }
  if (may.length === 0 && named.length === 0) {
    throw new DeskError('not now', 'There is no channel at which this can be done now.');
  }
  for (const { name: channel, drop } of may) {
    if (!drop) continue;
    await actOnDrop(drop.id, { action }, options.now ? 0 : undefined);
    process.stdout.write(`${channel}: ${await doneWords(action, id, drop.id)}\n`);
  }
  if (!options.watch) return;
  await watch(id);
  const acted = new Set(may.map((each) => each.id));
  for (const { id: channelId, name: channel, drop } of (await lookAtSheet(id)).channels) {
    if (drop && acted.has(channelId)) process.stdout.write(`${channel}: ${dropWords(drop, zoneHere())}\n`);
  }
}

/** What was asked for, and how it stands until the site confirms it. */
async function doneWords(action: DropAction, videoId: string, dropId: string): Promise<string> {
  if (action !== 'open' && action !== 'close') return DONE[action];
  const channel = (await lookAtSheet(videoId)).channels.find(({ drop }) => drop?.id === dropId);
  const { onWord = false, opensAt = '', openedTo } = channel?.drop ?? {};
  if (action === 'open' && onWord) {
    const seconds = Math.ceil((Date.parse(opensAt) - Date.now()) / 1000);
    if (seconds > 0) return `Opens in ${seconds} s. Until then, “kettle stop ${videoId}” stops it`;
  }
  if (action === 'close' && openedTo) {
    if (openedTo === 'private') return `Private, as ${channel?.siteName} confirms`;
    return `${DONE.close}; still open ${OPEN_TO[openedTo]} until ${channel?.siteName} confirms it`;
  }
  return DONE[action];
}

/** Deletes a video with its file, words and markers; at sites it is removed first, which has to be said. */
export async function deleteVideo(name: string, options: { fromSites?: boolean }): Promise<void> {
  const id = await videoNamed(name);
  const atSites = async () =>
    (await lookAtSheet(id)).channels.filter(({ drop }) => drop && drop.state !== 'draft' && drop.state !== 'removed');
  const there = await atSites();
  if (there.length > 0 && !options.fromSites) {
    const names = there.map((channel) => channel.name).join(', ');
    throw new DeskError('not now', `It is at ${names}. Say --from-sites to remove it there, too.`);
  }
  for (const { drop } of there) {
    if (drop?.actions.includes('remove')) await actOnDrop(drop.id, { action: 'remove' });
  }
  for (let left = there; left.length > 0; left = await atSites()) {
    const stuck = left.find(({ drop }) => drop?.state === 'snag' && drop.snag?.at === 'removing');
    if (stuck?.drop?.snag) {
      throw new DeskError('site', `${stuck.name} did not remove it: ${stuck.drop.snag.what}. Nothing is deleted here.`);
    }
    await pause(200);
  }
  await discardVideo(id);
  process.stdout.write('Deleted\n');
}
