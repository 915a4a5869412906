import { createReadStream } from 'node:fs';
import { mkdir, readdir, readFile, rename, rm, stat, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { ValidationError } from 'yup';
import { type FoundFile, groupsAtRest, type InboxGroup } from '@/core/inbox';
import { MarkerFileError } from '@/core/markers';
import { openWarnings } from '@/core/preflight';
import { database } from '@/store/database';
import { newId } from '@/store/ids';
import { cutById, cutsByFingerprint } from '@/store/record/cuts';
import { bringLocalFile } from '../cut/bring-local-file';
import { fingerprintOfFile } from '../cut/file-proof';
import { DeskError } from '../desk-error';
import { sendVideo } from '../drop/send';
import { log } from '../log';
import { bringCaptions } from '../video/captions';
import { discardVideo } from '../video/delete-video';
import { importMarkers } from '../video/markers';
import { bringPicture } from '../video/pictures';
import { lookAtSheet } from '../views/look-at-sheet';

/** Folders of the inbox: what is being taken in, what was, and what could not be. */
const TAKING = 'taking';
const TAKEN = 'taken';
const REFUSED = 'refused';
/** What nobody has changed for so long is whole, where its size is that of the look before. */
const RESTS_MILLISECONDS = 3000;
const LOOK_MILLISECONDS = 300;
const LARGEST_BESIDE = 50_000_000;
/** Which video a group has become, noted beside it, so that a worker that goes on does not make a second one. */
const NOTE = 'video-id.txt';

let before: FoundFile[] = [];

/**
 * Looks once into the folder that is watched, and takes in what is whole: each video with its series by the file's name, and
 * the files of its name beside it. What was taken in goes to `taken/`, what could not to `refused/` with why.
 * @param signal ends it between two steps; what was begun goes on with the next look
 */
export async function lookInInbox(inbox: string, signal: AbortSignal): Promise<void> {
  for (const folder of [TAKING, TAKEN, REFUSED]) await mkdir(path.join(inbox, folder), { recursive: true });
  for (const name of await readdir(path.join(inbox, TAKING))) {
    signal.throwIfAborted();
    await takeIn(inbox, path.join(inbox, TAKING, name), signal);
  }
  const found = await filesIn(inbox);
  const groups = groupsAtRest(found, before, Date.now() - RESTS_MILLISECONDS);
  before = found;
  for (const group of groups) {
    signal.throwIfAborted();
    const folder = path.join(inbox, TAKING, newId());
    await mkdir(folder);
    // The video comes last: a folder without one is put back.
    for (const name of [...besideOf(group), group.video]) await rename(path.join(inbox, name), path.join(folder, name));
    await takeIn(inbox, folder, signal);
  }
}

const besideOf = ({ markers, captions, picture }: InboxGroup) => [
  ...markers,
  ...captions.map(({ name }) => name),
  ...(picture ? [picture] : []),
];

async function filesIn(folder: string): Promise<FoundFile[]> {
  const all = await readdir(folder, { withFileTypes: true });
  const found = await Promise.all(
    all
      .filter((entry) => entry.isFile() && entry.name !== NOTE)
      .map(async ({ name }): Promise<FoundFile[]> => {
        const about = await stat(path.join(folder, name)).catch(() => undefined);
        return about ? [{ name, size: about.size, changedAt: about.mtimeMs }] : [];
      }),
  );
  return found.flat();
}

/** Takes one group in, from wherever it stands. */
async function takeIn(inbox: string, folder: string, signal: AbortSignal): Promise<void> {
  const found = await filesIn(folder);
  const [group] = groupsAtRest(found, found, Number.POSITIVE_INFINITY);
  if (!group) {
    // The worker was ended before the video was in: it is all put back.
    for (const { name } of found) await rename(path.join(folder, name), await freeName(inbox, name));
    await rm(folder, { recursive: true, force: true });
    return;
  }
  const refused = new Map<string, string>();
  try {
    const videoId = await bring(folder, group.video, signal);
    for (const name of besideOf(group)) {
      signal.throwIfAborted();
      await takeBeside(videoId, folder, name, group).catch((error: unknown) => refused.set(name, reasonOf(error)));
    }
    await sendWhereItShould(videoId, signal);
  } catch (error) {
    if (signal.aborted) throw error;
    refused.set(group.video, reasonOf(error));
    // Without its video the rest is of no use.
    for (const name of besideOf(group)) refused.set(name, `Its video was refused: ${reasonOf(error)}`);
  }
  // The video goes last: a worker that is killed before finds it again, and goes on from there.
  const names = found.map(({ name }) => name).filter((name) => name !== group.video);
  for (const name of [...names, group.video]) {
    const why = refused.get(name);
    const to = await freeName(path.join(inbox, why === undefined ? TAKEN : REFUSED), name);
    if (why !== undefined) await writeFile(`${to}.why.txt`, `${why}\n`);
    await rename(path.join(folder, name), to);
  }
  log.info({ video: group.video, refused: [...refused.keys()] }, 'inbox looked at');
  await rm(folder, { recursive: true, force: true });
}

/** What went wrong in words, where it is the file's fault. @throws the error where it is not */
function reasonOf(error: unknown): string {
  if (error instanceof MarkerFileError) return `The marker file cannot be read. ${error.message}.`;
  if (error instanceof DeskError || error instanceof ValidationError) return error.message;
  throw error;
}

/** Brings the video in and waits until it is read; its id is returned. @throws DeskError where it cannot be used */
async function bring(folder: string, name: string, signal: AbortSignal): Promise<string> {
  const note = path.join(folder, NOTE);
  const noted = await readFile(note, 'utf8').catch(() => undefined);
  let [videoId = '', cutId = ''] = noted?.split(' ') ?? [];
  if (!noted || !(await cutById(database(), cutId))) {
    ({ videoId, cutId } = (await broughtBefore(folder, name)) ?? (await bringLocalFile(path.join(folder, name))));
    await writeFile(note, `${videoId} ${cutId}`);
  }
  for (;;) {
    const cut = await cutById(database(), cutId);
    if (cut?.state === 'ready') return videoId;
    if (!cut || cut.state === 'refused') {
      await discardVideo(videoId).catch(() => undefined);
      throw new DeskError('not taken', cut?.refusal ?? 'The video was deleted while it was taken in.');
    }
    await pause(LOOK_MILLISECONDS, undefined, { signal });
  }
}

/**
 * What a worker has brought in out of this folder that was ended before it noted so; it would be refused as here already. It
 * came after the folder was made, whose name tells when (UUIDv7, RFC 9562 section 5.7).
 */
async function broughtBefore(folder: string, name: string): Promise<{ videoId: string; cutId: string } | undefined> {
  const file = path.join(folder, name);
  const fingerprint = await fingerprintOfFile(file, (await stat(file)).size);
  const brought = (await cutsByFingerprint(database(), fingerprint)).find(
    ({ id, fileName, state }) => id > path.basename(folder) && fileName === name && state !== 'arriving',
  );
  return brought && { videoId: brought.videoId, cutId: brought.id };
}

async function takeBeside(videoId: string, folder: string, name: string, group: InboxGroup): Promise<void> {
  const file = path.join(folder, name);
  if (name === group.picture) return bringPicture(videoId, createReadStream(file));
  if ((await stat(file)).size > LARGEST_BESIDE)
    throw new DeskError('not taken', `${name} is too large for what it is.`);
  const bytes = await readFile(file);
  if (group.markers.includes(name)) {
    await importMarkers(videoId, bytes, 'merge', { fileName: name });
    return;
  }
  const { values } = await lookAtSheet(videoId);
  const language = group.captions.find((each) => each.name === name)?.language ?? (values.language || 'en');
  await bringCaptions(videoId, bytes, { language, fileName: name });
}

/** Sends a video where its series says so: once it has been looked over, and only where nothing is found against it. */
async function sendWhereItShould(videoId: string, signal: AbortSignal): Promise<void> {
  for (;;) {
    const sheet = await lookAtSheet(videoId);
    if (!sheet.values.sendFromInbox) return;
    if (sheet.measured === 'waiting') {
      await pause(LOOK_MILLISECONDS, undefined, { signal });
      continue;
    }
    if (sheet.measured === 'ready' && openWarnings(sheet).length === 0) await sendVideo(videoId);
    return;
  }
}

/** A path in a folder that nothing has yet. */
async function freeName(folder: string, name: string): Promise<string> {
  const { name: base, ext } = path.parse(name);
  for (let count = 1; ; count += 1) {
    const at = path.join(folder, count === 1 ? name : `${base} (${count})${ext}`);
    if (!(await stat(at).catch(() => undefined))) return at;
  }
}
