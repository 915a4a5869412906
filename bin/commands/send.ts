import { createReadStream } from 'node:fs';
import { readFile, stat } from 'node:fs/promises';
import path from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { NO_CHOICE } from '@/core/chapters';
import type { DropState } from '@/core/drop';
import { tagsFromText } from '@/core/words';
import { announceCut, noteCutArrived } from '@/desk/bring-cut';
import { DeskError } from '@/desk/desk-error';
import { editVideo, tickChannel } from '@/desk/edit-video';
import { lookAtChannels } from '@/desk/look';
import { lookAtSeriesList } from '@/desk/look-at-layers';
import { lookAtSheet } from '@/desk/look-at-sheet';
import { importMarkers } from '@/desk/markers';
import { sendVideo } from '@/desk/send';
import { files } from '@/store/files/folder';
import { explanation } from './explain';

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
  watch?: boolean;
  explain?: boolean;
}

const say = (text: string) => process.stdout.write(`${text}\n`);

/** The channel of a name, or of `site/name` where several sites have one of that name. */
async function channelNamed(name: string): Promise<string> {
  const { sites } = await lookAtChannels();
  const all = sites.flatMap((site) => site.accounts.flatMap((account) => account.channels));
  const wanted = name.toLowerCase();
  const fits = all.filter((channel) => {
    const own = channel.name.toLowerCase();
    return channel.connected && (own === wanted || `${channel.site}/${own}` === wanted);
  });
  if (fits.length === 1 && fits[0]) return fits[0].id;
  if (fits.length > 1) {
    const which = fits.map((channel) => `“${channel.site}/${channel.name}”`).join(' or ');
    throw new DeskError('not found', `There are ${fits.length} channels called “${name}”. Say ${which}.`);
  }
  const known = all.filter((channel) => channel.connected).map((channel) => `“${channel.name}”`);
  const which =
    known.length > 0 ? `Connected are ${known.join(', ')}.` : 'No channel is connected; connect one on Channels.';
  throw new DeskError('not found', `There is no channel called “${name}”. ${which}`);
}

function answer(text: string | undefined): boolean | undefined {
  if (text === undefined || text === 'yes') return text && true;
  if (text === 'no') return false;
  throw new DeskError('not taken', `Answer --for-children with yes or no, not with “${text}”.`);
}

/** The series of a name, by its id. */
async function seriesNamed(name: string): Promise<string> {
  const { series } = await lookAtSeriesList();
  const found = series.find((each) => each.name.toLowerCase() === name.toLowerCase());
  if (found) return found.id;
  const known = series.map((each) => `“${each.name}”`);
  const which = known.length > 0 ? `There are ${known.join(', ')}.` : 'There is none yet; make one on Series.';
  throw new DeskError('not found', `There is no series called “${name}”. ${which}`);
}

/** What was given by hand; everything else comes from the layers. */
function given({ title, description, tags, privacy, product, forChildren }: SendOptions, seriesId?: string) {
  const all = {
    ...{ title, privacy, seriesId, summary: description, forChildren: answer(forChildren), products: product },
    tags: tags === undefined ? undefined : { way: 'add', items: tagsFromText(tags) },
  };
  return Object.fromEntries(Object.entries(all).filter(([, value]) => value !== undefined));
}

/** Brings a file, fills in its record and sends it, all by the desk's own functions. */
export async function send(file: string, options: SendOptions): Promise<void> {
  const seriesId = options.series === undefined ? undefined : await seriesNamed(options.series);
  const edit = given(options, seriesId);
  const channelIds: string[] = [];
  for (const name of options.channel ?? []) channelIds.push(await channelNamed(name));
  const { size } = await stat(file);
  const { cut } = await announceCut({ fileName: path.basename(file), size });
  await files().put(cut.fileKey, createReadStream(file));
  await noteCutArrived(cut.id, size);
  const { videoId } = cut;
  await editVideo(videoId, edit);
  for (const channelId of channelIds) await tickChannel(videoId, channelId, true);
  const ticked = (await lookAtSheet(videoId)).channels.filter((channel) => channel.ticked);
  if (ticked.length === 0) {
    throw new DeskError(
      'not now',
      `It is here as video ${videoId}, but goes nowhere: give --channel, or the series its channels.`,
    );
  }
  await untilRead(videoId);
  if (options.markers) {
    const { markers, findings } = await importMarkers(videoId, await readFile(options.markers));
    for (const finding of findings) console.error(`${finding.at}: ${finding.what}; ${finding.done}`);
    say(`${markers} markers read`);
    if (options.chapters)
      await editVideo(videoId, { chapterChoice: { ...NO_CHOICE, colours: [options.chapters.toLowerCase()] } });
  }
  if (options.explain) say(explanation(await lookAtSheet(videoId)));
  const { sent, notReady } = await sendVideo(videoId);
  for (const { channel, missing } of notReady) console.error(`${channel} is not ready: ${missing.join('; ')}`);
  if (notReady.length > 0) process.exitCode = 1;
  if (sent.length === 0) return;
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

const ENDS: readonly DropState[] = ['live', 'held', 'snag', 'removed', 'draft'];

async function watch(videoId: string): Promise<void> {
  let last = 0;
  const linked = new Set<string>();
  for (;;) {
    const { channels } = await lookAtSheet(videoId);
    const sent = channels.filter(({ drop }) => drop && drop.state !== 'draft');
    const several = sent.length > 1;
    const events = sent.flatMap(({ name, events: own }) => own.map((event) => ({ ...event, name })));
    for (const event of events.filter(({ id }) => id > last).sort((a, b) => a.id - b.id)) {
      say(`${event.at}  ${several ? `${event.name}: ` : ''}${event.says}`);
      last = event.id;
    }
    for (const { drop, name } of sent) {
      if (!drop?.link || linked.has(drop.id)) continue;
      say(`Link: ${drop.link}${several ? ` (${name})` : ''}`);
      linked.add(drop.id);
    }
    if (sent.some(({ drop }) => drop?.state === 'snag')) process.exitCode = 1;
    if (sent.every(({ drop }) => drop && ENDS.includes(drop.state))) return;
    await pause(300);
  }
}
