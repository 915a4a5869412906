import { isSent, mayMove } from '@/core/drop';
import { database, transaction } from '@/store/database';
import { dropById, dropsOf } from '@/store/drop/drops';
import { announce } from '@/store/feed';
import { removeAskedFiles } from '@/store/files/removals';
import { deleteVideo, setVideo, videoById, videosToDelete } from '@/store/record/videos';
import { channelById } from '@/store/site/channels';
import { DeskError, found } from '../desk-error';
import { makeMove } from '../drop/make-move';
import { log } from '../log';
import { site } from '../site/session';

/**
 * Deletes a video that is at no site, with its files.
 * @param onlyIfAsked looks, while nobody else can change it, whether it is still to be deleted
 * @returns false where a drop of it is at a site, or where it is to be kept
 */
async function deleteHere(id: string, onlyIfAsked = false): Promise<boolean> {
  const gone = await transaction(async (trx) => {
    const video = found(await videoById(trx, id, true), 'video');
    if (onlyIfAsked && !video.deleteAskedAt) return false;
    for (const { id: dropId } of await dropsOf(trx, [id])) {
      // Each drop is held until the end: it can neither be sent nor moved meanwhile.
      const drop = await dropById(trx, dropId, true);
      if (drop && isSent(drop.state)) return false;
    }
    await deleteVideo(trx, id);
    await announce(trx, 'video', id);
    return true;
  });
  if (gone) {
    await removeAskedFiles(database());
    log.info({ video: id }, 'video deleted');
  }
  return gone;
}

/** Deletes a video that is at no site. @throws DeskError where a drop of it is at one */
export async function discardVideo(id: string): Promise<void> {
  if (await deleteHere(id)) return;
  throw new DeskError('not now', 'This video is at a site. Remove it there first, then delete it here.');
}

/**
 * Deletes a video: at once where it is at no site, else as soon as its sites have taken it away. Whether it is gone already
 * is returned.
 * @throws DeskError where a site does not take videos away
 */
export async function askToDelete(id: string): Promise<boolean> {
  const db = database();
  found(await videoById(db, id), 'video');
  const drops = (await dropsOf(db, [id])).filter(({ state }) => isSent(state));
  for (const { channelId } of drops) {
    const { profile } = site(found(await channelById(db, channelId), 'channel').site);
    if (!profile.abilities.removes) {
      throw new DeskError('not now', `${profile.name} does not let a video be removed. Remove it there by hand first.`);
    }
  }
  await setVideo(db, id, { deleteAskedAt: new Date() });
  try {
    for (const drop of drops) {
      if (mayMove('remove', drop.state, drop.snag))
        await makeMove(drop, 'remove', 'Being removed: the video is deleted');
    }
  } catch (error) {
    // Somebody who hears that it did not go does not expect it to go later.
    await keepVideo(id);
    throw error;
  }
  return deleteHere(id);
}

/** Takes back that a video is to be deleted; what its sites have removed meanwhile is gone there. */
export async function keepVideo(id: string): Promise<void> {
  await transaction(async (trx) => {
    const video = found(await videoById(trx, id, true), 'video');
    if (video.deleteAskedAt) await setVideo(trx, id, { deleteAskedAt: undefined });
    await announce(trx, 'video', id);
  });
}

/** Deletes a video whose deletion was asked for, once its last site has taken it away. */
export async function deleteIfAsked(id: string): Promise<void> {
  const video = await videoById(database(), id);
  if (video?.deleteAskedAt) await deleteHere(id, true);
}

/** Deletes all videos whose deletion was asked for and which are gone from their sites. */
export async function deleteAsked(): Promise<void> {
  for (const id of await videosToDelete(database())) await deleteIfAsked(id);
}
