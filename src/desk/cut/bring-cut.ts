import path from 'node:path';
import { array, boolean, mixed, number, object, string, ValidationError } from 'yup';
import { binarySize } from '@/core/delivery';
import { type Database, database, transaction } from '@/store/database';
import { makeDrop } from '@/store/drop/drops';
import { lookAtHeldAgain } from '@/store/drop/held';
import { announce } from '@/store/feed';
import { ArrivingStore } from '@/store/files/arriving';
import { files } from '@/store/files/folder';
import { removeAskedFiles } from '@/store/files/removals';
import { lockThing } from '@/store/queue/locks';
import {
  betterCut,
  bytesToCome,
  type Cut,
  cutById,
  cutInUse,
  cutsArriving,
  cutsByFingerprint,
  cutsOf,
  deleteCut,
  makeCut,
  noteArrived,
  noteHeard,
  noteReceived,
} from '@/store/record/cuts';
import { noteSeriesUsed } from '@/store/record/series';
import { makeVideo, videoById } from '@/store/record/videos';
import { change } from '../changes/changes';
import { DeskError, found } from '../desk-error';
import { idShape } from '../id-shape';
import { recogniseFile, ticksOfSeries } from '../layers/recognise';
import { log } from '../log';
import { trimmed } from '../text-shape';
import { proofOfStart } from './file-proof';

const cutShape = object({
  fileName: trimmed().min(1).max(500).required(),
  size: number().integer().required(),
  fingerprint: string().max(200),
  videoId: idShape(),
  /** Set where the same file is here already and a second video of it is meant. */
  anyway: boolean().default(false),
}).noUnknown();

/** Space that stays free on the disk beside the cut, for the database, pictures and logs. */
const SPARE_BYTES = 200 * 1024 * 1024;

/** What became of a file that is about to come in. */
export type Announced =
  | { cut: Cut; goesOn: boolean }
  /** The same file is here already; nothing was made. */
  | { known: { videoId: string; title: string } };

/**
 * Makes room for a file that is about to come in, and a video for it unless one is named. A file whose transfer broke
 * off is known by its fingerprint and goes on; one that is here as a whole is named, and is taken once more only where
 * that is said.
 * @param alone whether it is a video of its own though the same file is just coming in
 * @throws DeskError 'not taken' for an empty file, 'full' where the disk has no room
 */
export async function announceCut(input: unknown, alone = false): Promise<Announced> {
  const { fileName, size, fingerprint, videoId, anyway } = await cutShape.validate(input, { stripUnknown: false });
  const db = database();
  if (size <= 0) throw new DeskError('not taken', `“${fileName}” is empty. Export it again, then add it.`);
  const same = fingerprint ? (await cutsByFingerprint(db, fingerprint)).filter((cut) => cut.size === size) : [];
  const broken = same.find((cut) => cut.state === 'arriving' && (!videoId || cut.videoId === videoId));
  if (broken && !alone) return { cut: broken, goesOn: true };
  const whole = same.find((cut) => !cut.goneAt && (cut.state === 'ready' || cut.state === 'reading'));
  if (whole && !anyway && (!videoId || whole.videoId === videoId)) {
    const title = (await videoById(db, whole.videoId))?.title ?? '';
    return { known: { videoId: whole.videoId, title } };
  }
  const cut = await transaction(async (trx) => {
    await reserveSpace(trx, fileName, size);
    // Two files for one video at once wait for each other here.
    if (videoId) found(await videoById(trx, videoId, true), 'video');
    const owner = videoId ?? (await newVideo(trx, fileName));
    const made = await makeCut(trx, { videoId: owner, fileName: path.basename(fileName), fingerprint, size });
    // What is held does not open with the file from before, while this one comes.
    await lookAtHeldAgain(trx, owner);
    await announce(trx, 'video', owner);
    return made;
  });
  log.info({ cut: cut.id, video: cut.videoId, size }, 'cut announced');
  return { cut, goesOn: false };
}

/**
 * Makes sure that a file has room, beside all that are on their way already and have not come yet. Whoever asks for room
 * waits here for each other.
 * @throws DeskError 'full'
 */
async function reserveSpace(trx: Database, fileName: string, size: number): Promise<void> {
  await lockThing(trx, 'space on the disk');
  const free = (await files().free()) - SPARE_BYTES - (await bytesToCome(trx));
  if (size <= free) return;
  const room = `it has ${binarySize(size)}, and ${binarySize(Math.max(0, free))} are free`;
  throw new DeskError('full', `There is no room on the disk for “${fileName}”: ${room}. Make room, then add it again.`);
}

const filesShape = object({ files: array(mixed().required()).min(1).max(500).required() }).noUnknown();

/** What became of one of several files: as `Announced`, or why it cannot be taken. */
export type AnnouncedFile = Announced | { refused: string };

/** Announces several files at once, so that each has its row before the first byte of any is sent. */
export async function announceCuts(input: unknown): Promise<AnnouncedFile[]> {
  const { files: all } = await filesShape.validate(input, { stripUnknown: false });
  const made: AnnouncedFile[] = [];
  for (const file of all) {
    try {
      made.push(await announceCut(file));
    } catch (error) {
      if (!(error instanceof DeskError) && !(error instanceof ValidationError)) throw error;
      made.push({ refused: error.message });
    }
  }
  return made;
}

const proofShape = object({ upTo: number().integer().min(0).required(), digest: string().length(64).required() });

/**
 * Whether a file begins with the bytes that have come of a transfer that broke off: then it may go on.
 * @throws DeskError where it does not; two exports would be mixed
 */
export async function proveStart(id: string, input: unknown): Promise<void> {
  const { upTo, digest } = await proofShape.validate(input);
  const cut = await arrivingCut(id);
  const here = await files()
    .size(cut.fileKey)
    .catch(() => 0);
  if (here !== upTo) throw new DeskError('not now', 'More of the file has arrived meanwhile. Pick it again.');
  const proof = await proofOfStart(files().localPath(cut.fileKey), upTo).catch(() => undefined);
  if (proof === digest) return;
  const what = `“${cut.fileName}” is another file than the one that broke off`;
  throw new DeskError('not taken', `${what}. Bring it as a new file; the old one can be deleted on its page.`);
}

const waitingShape = object({ cuts: array(idShape().required()).max(500).required() }).noUnknown();

/** Notes that a page still has files that are on their way, so that they are not taken for broken off. */
export async function noteWaiting(input: unknown): Promise<void> {
  const { cuts } = await waitingShape.validate(input, { stripUnknown: false });
  await noteHeard(database(), cuts);
}

/** Makes a video for a file, in the series that its name tells, with that series' channels ticked. */
async function newVideo(trx: Database, fileName: string): Promise<string> {
  const recognised = await recogniseFile(trx, fileName);
  const id = await makeVideo(trx, recognised);
  const { seriesId } = recognised;
  if (seriesId === undefined) return id;
  await noteSeriesUsed(trx, seriesId);
  const { tick } = await ticksOfSeries(trx, id, { from: undefined, to: seriesId });
  for (const channelId of tick) await makeDrop(trx, id, channelId);
  return id;
}

/** Where a tus server puts the bytes of cuts. */
export function cutsComeInto(): ArrivingStore {
  return new ArrivingStore();
}

/** The cut that a transfer may write to. @throws DeskError where there is none, or all of it is here already */
export async function arrivingCut(id: string): Promise<Cut> {
  const cut = found(await cutById(database(), id), 'file');
  if (cut.state !== 'arriving') throw new DeskError('not now', 'This file has arrived already.');
  return cut;
}

/** Notes how much of a cut is here, for pages that watch. */
export async function noteCutProgress(id: string, received: number): Promise<void> {
  const db = database();
  const cut = await cutById(db, id);
  if (!cut) return;
  await noteReceived(db, id, received);
  await announce(db, 'video', cut.videoId);
}

/**
 * Notes that every byte of a cut is here; a worker reads its facts next.
 * @param digest its SHA-256 in hexadecimal, where that was made while it came
 */
export async function noteCutArrived(id: string, size: number, digest?: string): Promise<void> {
  const db = database();
  const cut = await cutById(db, id);
  if (!cut) return;
  // All or nothing: a cut that waits to be read has a job that reads it.
  await transaction(async (trx) => {
    await noteArrived(trx, id, size, digest);
    await announce(trx, 'video', cut.videoId);
  });
  log.info({ cut: id, video: cut.videoId, size }, 'cut arrived');
}

/** Takes a better cut that has been read into use. The one before stays, and undo goes back to it. */
export async function takeIntoUse(trx: Database, cut: Pick<Cut, 'id' | 'videoId'>): Promise<void> {
  const video = found(await videoById(trx, cut.videoId, true), 'video');
  const others = ((await cutsOf(trx, [cut.videoId])).get(cut.videoId) ?? []).filter(({ id }) => id !== cut.id);
  const before = cutInUse(others, video.cutId);
  if (before?.state === 'ready') await change(trx, video.id, 'cut', { cutId: before.id }, { cutId: cut.id });
}

/**
 * Notes every cut of which all bytes are here though nobody said so: whoever took them in was ended between the last byte
 * and the word.
 */
export async function noteCutsThatAreWhole(): Promise<void> {
  for (const cut of await cutsArriving(database())) {
    const here = await files()
      .size(cut.fileKey)
      .catch(() => 0);
    if (here === cut.size) await noteCutArrived(cut.id, cut.size);
  }
}

/**
 * Takes back a cut that is not in use: a better one that has not arrived or was refused.
 * @throws DeskError where it is the cut in use
 */
export async function discardCut(id: string): Promise<void> {
  const { videoId } = found(await cutById(database(), id), 'file');
  await transaction(async (trx) => {
    // What takes a cut into use waits for the same row.
    const video = found(await videoById(trx, videoId, true), 'video');
    const cuts = (await cutsOf(trx, [videoId])).get(videoId) ?? [];
    const coming = betterCut(cuts);
    if (coming?.id !== id || video.cutId === id) {
      throw new DeskError('not now', 'This file is in use. Replace it instead.');
    }
    await deleteCut(trx, id);
    await announce(trx, 'video', videoId);
  });
  await removeAskedFiles(database());
  log.info({ cut: id, video: videoId }, 'cut taken back');
}
