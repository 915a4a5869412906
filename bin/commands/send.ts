import { createReadStream } from 'node:fs';
import { readFile, stat } from 'node:fs/promises';
import path from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { NO_CHOICE } from '@/core/chapters';
import { tagsFromText } from '@/core/words';
import { announceCut, noteCutArrived } from '@/desk/bring-cut';
import { DeskError } from '@/desk/desk-error';
import { editVideo, tickChannel } from '@/desk/edit-video';
import { lookAtChannels, lookAtSheet } from '@/desk/look';
import { importMarkers } from '@/desk/markers';
import { sendVideo } from '@/desk/send';
import { files } from '@/store/files/folder';

interface SendOptions {
  channel: string;
  title?: string;
  description?: string;
  tags?: string;
  markers?: string;
  chapters?: string;
  privacy: string;
  watch?: boolean;
}

const say = (text: string) => process.stdout.write(`${text}\n`);

async function channelNamed(name: string): Promise<string> {
  const { sites } = await lookAtChannels();
  const all = sites.flatMap((site) => site.accounts.flatMap((account) => account.channels));
  const fits = all.filter((channel) => channel.connected && channel.name.toLowerCase() === name.toLowerCase());
  if (fits.length === 1 && fits[0]) return fits[0].id;
  const known = all.filter((channel) => channel.connected).map((channel) => `“${channel.name}”`);
  const which =
    known.length > 0 ? `Connected are ${known.join(', ')}.` : 'No channel is connected; connect one on Channels.';
  throw new DeskError('not found', `There is no channel called “${name}”. ${which}`);
}

/** Brings a file, fills in its record and sends it, all by the desk's own functions. */
export async function send(file: string, options: SendOptions): Promise<void> {
  const channelId = await channelNamed(options.channel);
  const { size } = await stat(file);
  const { cut } = await announceCut({ fileName: path.basename(file), size });
  await files().put(cut.fileKey, createReadStream(file));
  await noteCutArrived(cut.id, size);
  const { videoId } = cut;
  await editVideo(videoId, {
    privacy: options.privacy,
    ...(options.title === undefined ? {} : { title: options.title }),
    ...(options.description === undefined ? {} : { description: options.description }),
    ...(options.tags === undefined ? {} : { tags: tagsFromText(options.tags) }),
  });
  await tickChannel(videoId, channelId, true);
  await untilRead(videoId);
  if (options.markers) {
    const { markers, findings } = await importMarkers(videoId, await readFile(options.markers));
    for (const finding of findings) console.error(`${finding.at}: ${finding.what}; ${finding.done}`);
    say(`${markers} markers read`);
    if (options.chapters)
      await editVideo(videoId, { chapterChoice: { ...NO_CHOICE, colours: [options.chapters.toLowerCase()] } });
  }
  const { sent, notReady } = await sendVideo(videoId);
  for (const { channel, missing } of notReady) console.error(`${channel} is not ready: ${missing.join('; ')}`);
  if (sent.length === 0) {
    process.exitCode = 1;
    return;
  }
  say(`Sent to ${sent.join(', ')} as video ${videoId}`);
  if (options.watch) await watch(videoId);
}

async function untilRead(videoId: string): Promise<void> {
  for (;;) {
    const { cut } = await lookAtSheet(videoId);
    if (cut?.state === 'refused') throw new DeskError('not taken', cut.refusal ?? 'The cut cannot be used.');
    if (cut?.state === 'ready') return;
    await pause(200);
  }
}

async function watch(videoId: string): Promise<void> {
  let [last, linked] = [0, false];
  for (;;) {
    const { channels } = await lookAtSheet(videoId);
    const drop = channels.find((channel) => channel.drop)?.drop;
    const events = channels.flatMap((channel) => channel.events).filter((event) => event.id > last);
    for (const event of events) {
      say(`${event.at}  ${event.says}`);
      last = event.id;
    }
    if (drop?.link && !linked) {
      say(`Link: ${drop.link}`);
      linked = true;
    }
    if (drop?.state === 'snag') process.exitCode = 1;
    if (!drop || ['live', 'held', 'snag', 'removed'].includes(drop.state)) return;
    await pause(300);
  }
}
