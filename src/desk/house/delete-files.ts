import type { Database } from '@/store/database';
import { dropsOf } from '@/store/drop/drops';
import { announce } from '@/store/feed';
import { deleteMadeFile, isRenditionNeeded, renditionsOf } from '@/store/files/renditions';
import { cutsOf, letCutsGo } from '@/store/record/cuts';
import { measurementOf } from '@/store/record/measurements';
import { videoById } from '@/store/record/videos';
import { DeskError, found } from '../desk-error';

/** Takes every file that was made for sites of a video off the disk, but those that are still being sent. */
export async function deleteMadeFilesOf(trx: Database, videoId: string): Promise<void> {
  const cuts = (await cutsOf(trx, [videoId])).get(videoId) ?? [];
  const made = await renditionsOf(
    trx,
    cuts.map(({ id }) => id),
  );
  for (const rendition of made) {
    if (rendition.state !== 'ready' || (await isRenditionNeeded(trx, rendition.id))) continue;
    await deleteMadeFile(trx, rendition);
  }
  await announce(trx, 'video', videoId);
}

/**
 * Takes the files of a video off the disk; all that is known of them stays, and so does what is at the sites.
 * @throws DeskError where something of it is still to be sent, or to be looked over
 */
export async function deleteFilesOf(trx: Database, videoId: string): Promise<void> {
  found(await videoById(trx, videoId, true), 'video');
  const drops = (await dropsOf(trx, [videoId])).filter(({ state }) => state !== 'removed');
  if (drops.length === 0 || drops.some(({ state }) => state !== 'live')) {
    throw new DeskError('not now', 'Its file is still needed: not everything of this video is live.');
  }
  const cuts = ((await cutsOf(trx, [videoId])).get(videoId) ?? []).filter(({ goneAt }) => !goneAt);
  for (const { id, state } of cuts) {
    const measured = (await measurementOf(trx, id))?.state;
    if (state === 'arriving' || state === 'reading' || measured === 'waiting') {
      throw new DeskError('not now', 'A file of this video is still being looked over. Try again in a while.');
    }
  }
  await letCutsGo(trx, cuts);
  await announce(trx, 'video', videoId);
}
