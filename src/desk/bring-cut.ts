import path from 'node:path';
import { number, object, string } from 'yup';
import { binarySize } from '@/core/delivery';
import {
  arrivingCutByFingerprint,
  betterCut,
  type Cut,
  cutById,
  cutsOf,
  deleteCut,
  makeCut,
  noteArrived,
  noteReceived,
} from '@/store/cuts';
import { type Database, database } from '@/store/database';
import { makeDrop } from '@/store/drops';
import { announce } from '@/store/feed';
import { ArrivingStore } from '@/store/files/arriving';
import { files } from '@/store/files/folder';
import { noteSeriesUsed } from '@/store/series';
import { deleteVideo, makeVideo, videoById } from '@/store/videos';
import { DeskError, found } from './desk-error';
import { idShape } from './id-shape';
import { log } from './log';
import { recogniseFile, ticksOfSeries } from './recognise';

const cutShape = object({
  fileName: string().trim().min(1).max(500).required(),
  size: number().integer().required(),
  fingerprint: string().max(200),
  videoId: idShape(),
});

/** Space that stays free on the disk beside the cut, for the database, pictures and logs. */
const SPARE_BYTES = 200 * 1024 * 1024;

/**
 * Makes room for a file that is about to come in, and a video for it unless one is named. A file whose transfer broke
 * off is known by its fingerprint and goes on.
 * @throws DeskError 'not taken' for an empty file, 'full' where the disk has no room
 */
export async function announceCut(input: unknown): Promise<{ cut: Cut; goesOn: boolean }> {
  const { fileName, size, fingerprint, videoId } = await cutShape.validate(input);
  const db = database();
  const known = fingerprint ? await arrivingCutByFingerprint(db, fingerprint) : undefined;
  if (known && known.size === size) return { cut: known, goesOn: true };
  if (size <= 0) throw new DeskError('not taken', `“${fileName}” is empty. Export it again and bring it once more.`);
  const free = (await files().free()) - SPARE_BYTES;
  if (size > free) {
    const room = `it has ${binarySize(size)}, and ${binarySize(Math.max(0, free))} are free`;
    throw new DeskError(
      'full',
      `There is no room on the disk for “${fileName}”: ${room}. Make room, then bring it again.`,
    );
  }
  if (videoId) found(await videoById(db, videoId), 'video');
  const cut = await db.transaction(async (trx) => {
    const owner = videoId ?? (await newVideo(trx, fileName));
    const made = await makeCut(trx, { videoId: owner, fileName: path.basename(fileName), fingerprint, size });
    await announce(trx, 'video', owner);
    return made;
  });
  log.info({ cut: cut.id, video: cut.videoId, size }, 'cut announced');
  return { cut, goesOn: false };
}

/** Makes a video for a file, in the series that its name tells or that was used last, with that series' channels ticked. */
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
  const cut = found(await cutById(database(), id), 'cut');
  if (cut.state !== 'arriving') throw new DeskError('not now', 'This cut has arrived already.');
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

/** Notes that every byte of a cut is here; a worker reads its facts next. */
export async function noteCutArrived(id: string, size: number): Promise<void> {
  const db = database();
  const cut = await cutById(db, id);
  if (!cut) return;
  await noteArrived(db, id, size);
  await announce(db, 'video', cut.videoId);
  log.info({ cut: id, video: cut.videoId, size }, 'cut arrived');
}

/**
 * Takes back a cut that is not in use: a better one that has not arrived or was refused.
 * @throws DeskError where it is the cut in use
 */
export async function discardCut(id: string): Promise<void> {
  const db = database();
  const cut = found(await cutById(db, id), 'cut');
  const cuts = (await cutsOf(db, [cut.videoId])).get(cut.videoId);
  if (betterCut(cuts)?.id !== id) throw new DeskError('not now', 'This cut is in use; bring a better one instead.');
  await deleteCut(db, id);
  await files().remove(cut.fileKey);
  await announce(db, 'video', cut.videoId);
  log.info({ cut: id, video: cut.videoId }, 'cut taken back');
}

/** Deletes a video that was never sent, with its files. @throws DeskError where a drop of it is at a site */
export async function discardVideo(id: string): Promise<void> {
  const db = database();
  const rows = await db('cuts').select('fileKey').where({ videoId: id });
  const sent = await db('drops').where({ videoId: id }).whereNotIn('state', ['draft', 'removed']).first('id');
  if (sent) throw new DeskError('not now', 'This video is at a site. Remove it there first, then delete it here.');
  const pictures = await db('pictures').select('fileKey').where({ videoId: id });
  await deleteVideo(db, id);
  for (const { fileKey } of [...rows, ...pictures]) await files().remove(fileKey);
  await announce(db, 'video', id);
}
