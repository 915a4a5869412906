import { existsSync } from 'node:fs';
import { readFile, stat } from 'node:fs/promises';
import path from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { PRIVACIES } from '@/core/delivery';
import { readMarkerFile } from '@/core/markers';
import { rate } from '@/core/time';
import { tagsFromText } from '@/core/words';
import { bringLocalFile } from '@/desk/cut/bring-local-file';
import { DeskError } from '@/desk/desk-error';
import { reviseVideo, type Sent, sendVideo } from '@/desk/drop/send';
import { seriesOfFile } from '@/desk/layers/recognise';
import { discardVideo } from '@/desk/video/delete-video';
import { editVideo, tickChannel } from '@/desk/video/edit-video';
import { importMarkers } from '@/desk/video/markers';
import { lookAtSheet } from '@/desk/views/look-at-sheet';
import { explanation } from './explain';
import { channelsNamed } from './named/channel';
import { chaptersOfColours } from './named/chapters';
import { seriesNamed } from './named/series';
import { videoNamed } from './named/video';
import { watch } from './watch';

interface SendOptions {
  channel?: string[];
  series?: string;
  title?: string;
  description?: string;
  tags?: string;
  markers?: string;
  chapters?: string;
  privacy?: string;
  forChildren?: string;
  product?: string[];
  again?: boolean;
  watch?: boolean;
  explain?: boolean;
}

const say = (text: string) => process.stdout.write(`${text}\n`);

function answer(text: string | undefined): boolean | undefined {
  if (text === undefined || text === 'yes') return text && true;
  if (text === 'no') return false;
  throw new DeskError('not taken', `Answer --for-children with yes or no, not with “${text}”.`);
}

/** What was given by hand; everything else comes from the layers. */
function given({ title, description, tags, privacy, product, forChildren }: SendOptions, seriesId?: string) {
  const known: readonly (string | undefined)[] = [...PRIVACIES, undefined];
  if (!known.includes(privacy)) {
    throw new DeskError('not taken', `--privacy is everyone, link or private, not “${privacy}”.`);
  }
  const all = {
    title,
    privacy,
    seriesId,
    summary: description,
    forChildren: answer(forChildren),
    products: product,
    tags: tags === undefined ? undefined : { way: 'add', items: tagsFromText(tags) },
  };
  return Object.fromEntries(Object.entries(all).filter(([, value]) => value !== undefined));
}

/** Sends a file that is on this machine as a new video, or a video that is here already. */
export async function send(what: string, options: SendOptions): Promise<void> {
  if (existsSync(what)) return sendFile(what, options);
  const isPath = /[\\/]/.test(what) && !/^https?:/.test(what);
  if (isPath || /\.(mp4|m4v|mov|mkv|webm)$/i.test(what)) throw new DeskError('not found', `There is no file ${what}.`);
  return sendHere(await videoNamed(what), options);
}

/** Sends a video that is here: to the channels named that it has not gone to, and what has changed to the others. */
async function sendHere(videoId: string, options: SendOptions): Promise<void> {
  const channelIds = await channelsNamed(options.channel ?? []);
  const seriesId = options.series === undefined ? undefined : await seriesNamed(options.series);
  const edit = given(options, seriesId);
  const markers = options.markers === undefined ? undefined : await markersIn(options.markers);
  if (Object.keys(edit).length > 0) await editVideo(videoId, edit);
  for (const id of channelIds) await tickChannel(videoId, id, true);
  if (markers) await takeMarkers(videoId, markers, options);
  if (options.explain) say(explanation(await lookAtSheet(videoId)));
  const only = channelIds.length > 0 ? channelIds : undefined;
  const [fresh, changed] = [await sendVideo(videoId, only), await reviseVideo(videoId, only)];
  report(videoId, {
    sent: [...fresh.sent, ...changed.sent],
    notReady: [...fresh.notReady, ...changed.notReady],
  });
  if (options.watch) await watch(videoId);
}

/** Brings a file, fills in its record and sends it. Where nothing of it can be sent, nothing of it is left here. */
async function sendFile(file: string, options: SendOptions): Promise<void> {
  if ((await stat(file)).isDirectory()) throw new DeskError('not taken', `${file} is a folder. Name a video file.`);
  // All that can be wrong with what was typed is found before anything is made.
  const named = await channelsNamed(options.channel ?? []);
  const seriesId = options.series === undefined ? undefined : await seriesNamed(options.series);
  const edit = given(options, seriesId);
  const markers = options.markers === undefined ? undefined : await markersIn(options.markers);
  if (named.length === 0 && seriesId === undefined && !(await seriesOfFile(path.basename(file)))) {
    throw new DeskError(
      'not now',
      'No series fits the name of this file. Say where it goes with --channel or --series.',
    );
  }
  const { videoId } = await bringLocalFile(file, { anyway: options.again });
  const undo = async () => {
    await discardVideo(videoId).catch(() => undefined);
  };
  const interrupted = () => {
    void undo().finally(() => process.exit(130));
  };
  process.once('SIGINT', interrupted);
  try {
    await editVideo(videoId, edit);
    if (named.length > 0) await tickOnly(videoId, named);
    await untilRead(videoId);
    if (markers) await takeMarkers(videoId, markers, options);
    const sheet = await lookAtSheet(videoId);
    if (!sheet.channels.some(({ ticked }) => ticked)) {
      throw new DeskError('not now', 'Its series ticks no channel. Say where it goes with --channel.');
    }
    if (options.explain) say(explanation(sheet));
    const sent = await sendVideo(videoId);
    report(videoId, sent);
    if (sent.sent.length === 0) {
      await undo();
      console.error('Nothing was sent, and nothing of it is kept here.');
      return;
    }
  } catch (error) {
    await undo();
    throw error;
  } finally {
    process.off('SIGINT', interrupted);
  }
  if (options.watch) await watch(videoId);
}

/** What is named by hand is all that it goes to, whatever its series ticks. */
async function tickOnly(videoId: string, channelIds: readonly string[]): Promise<void> {
  const { channels } = await lookAtSheet(videoId);
  for (const { id, ticked } of channels) {
    if (ticked && !channelIds.includes(id)) await tickChannel(videoId, id, false);
  }
  for (const id of channelIds) await tickChannel(videoId, id, true);
}

interface MarkersToTake {
  bytes: Uint8Array;
  fileName: string;
}

/** The bytes of a marker file that can be read. @throws MarkerFileError */
async function markersIn(file: string): Promise<MarkersToTake> {
  const [bytes, fileName] = [await readFile(file), path.basename(file)];
  readMarkerFile(bytes, { rate: rate(60) }, undefined, fileName);
  return { bytes, fileName };
}

async function takeMarkers(videoId: string, { bytes, fileName }: MarkersToTake, options: SendOptions): Promise<void> {
  const { markers, findings } = await importMarkers(videoId, bytes, 'replace', { fileName });
  for (const finding of findings) console.error(`${finding.at}: ${finding.what}; ${finding.done}`);
  say(`${markers} markers read`);
  if (options.chapters) {
    await editVideo(videoId, { chapterChoice: chaptersOfColours(options.chapters) });
    return;
  }
  const { chaptersChosen } = await lookAtSheet(videoId);
  if (!chaptersChosen) say('No marker is a chapter: say which colour is for viewers with --chapters.');
}

function report(videoId: string, { sent, notReady }: Sent): void {
  for (const { channel, missing } of notReady) console.error(`${channel} is not ready: ${missing.join('; ')}`);
  if (notReady.length > 0) process.exitCode = 1;
  if (sent.length > 0) say(`Sent to ${sent.join(', ')} as video ${videoId}`);
  else if (notReady.length === 0) say('There was nothing to send.');
}

async function untilRead(videoId: string): Promise<void> {
  for (;;) {
    const { cut } = await lookAtSheet(videoId);
    if (cut?.state === 'refused') throw new DeskError('not taken', cut.refusal ?? 'The file cannot be used.');
    if (cut?.state === 'ready') return;
    await pause(200);
  }
}
