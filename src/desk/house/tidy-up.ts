import { fieldInForce } from '@/core/defaults';
import { database, transaction } from '@/store/database';
import { forgetOldWaits } from '@/store/drop/events';
import { forgetOldRequests } from '@/store/drop/site-requests';
import { announce, forgetOldEntries } from '@/store/feed';
import { type Habit, videosAllLive } from '@/store/files/disk-use';
import { files } from '@/store/files/folder';
import { idsInMaking, removeMaking } from '@/store/files/making';
import { removeAskedFiles } from '@/store/files/removals';
import { deleteMadeFile, renditionsAllLive } from '@/store/files/renditions';
import { forgetOldNotices } from '@/store/notices/notices';
import { askForJobs, forgetOldJobs, jobsOf } from '@/store/queue/jobs';
import { forgetOldChanges } from '@/store/record/changes';
import { forgetOldManyActs } from '@/store/record/many-acts';
import { videosById } from '@/store/record/videos';
import { settings } from '@/store/settings';
import { forgetOldConnectRequests } from '@/store/site/accounts';
import { allChannels } from '@/store/site/channels';
import { DeskError } from '../desk-error';
import { type KeptLayers, keptLayers, layersAt } from '../layers/layers';
import { deleteAsked } from '../video/delete-video';
import { deleteFilesOf } from './delete-files';

/** The subject of work that is done for all there is. */
const EVERYTHING = 'everything';
const PLAYLISTS_AFTER_SECONDS = 300;

/** Asks for the work that comes again from time to time: for every channel, and for the house. */
export async function askForKeeping(): Promise<void> {
  const db = database();
  await askForJobs(db, 'tidy', [EVERYTHING]);
  if (settings().inbox) await askForJobs(db, 'inbox', [EVERYTHING]);
  const ids = (await allChannels(db)).map(({ id }) => id);
  // They were read when the account was connected.
  await askForJobs(db, 'playlists', ids, { seconds: PLAYLISTS_AFTER_SECONDS });
  await askForJobs(db, 'read live', ids);
  await askForJobs(db, 'watch held', ids);
  await askForJobs(db, 'tell', ['email', 'webhook']);
}

/** Takes away what nobody needs any more: old entries of the feed, sign-ins that were never ended, half files. */
export async function tidyUp(): Promise<void> {
  const db = database();
  await forgetOldEntries(db);
  await forgetOldConnectRequests(db);
  await forgetOldChanges(db);
  await forgetOldWaits(db);
  await forgetOldNotices(db);
  await forgetOldManyActs(db);
  await forgetOldRequests(db);
  await forgetOldJobs(db);
  await deleteAsked();
  await deleteMadeOfLive();
  await deleteFilesOfLive();
  await files().removeHalf();
  await removeHalfMade();
  await removeAskedFiles(db);
}

/** Where it may be said that a habit is one: on a video itself, or in these series. */
function whoseHabit({ series, defaults }: KeptLayers, field: 'deleteFile' | 'deleteMadeFiles'): Habit {
  return { field, seriesIds: [...series.keys()].filter((id) => defaults.get(id)?.[field] === true) };
}

/** Deletes files that were made for sites, of videos whose habit that is, once all their drops are live. */
async function deleteMadeOfLive(): Promise<void> {
  const db = database();
  const layers = await keptLayers(db);
  const made = await renditionsAllLive(db, whoseHabit(layers, 'deleteMadeFiles'));
  const videos = new Map(
    (await videosById(db, [...new Set(made.map(({ videoId }) => videoId))])).map((video) => [video.id, video]),
  );
  for (const rendition of made) {
    const video = videos.get(rendition.videoId);
    if (!video || fieldInForce('deleteMadeFiles', layersAt(layers, video)).value !== true) continue;
    await transaction(async (trx) => {
      await deleteMadeFile(trx, rendition);
      await announce(trx, 'video', video.id);
    });
  }
}

/** Deletes the files of videos whose habit that is, once all their drops are live. */
async function deleteFilesOfLive(): Promise<void> {
  const db = database();
  const layers = await keptLayers(db);
  const ids = await videosAllLive(db, whoseHabit(layers, 'deleteFile'));
  for (const video of await videosById(db, ids)) {
    if (fieldInForce('deleteFile', layersAt(layers, video)).value !== true) continue;
    await transaction((trx) => deleteFilesOf(trx, video.id)).catch((error: unknown) => {
      // It has changed meanwhile, or is still being looked over: another time.
      if (!(error instanceof DeskError)) throw error;
    });
  }
}

/** Takes away what killed workers left of files that are not to be made any more. */
async function removeHalfMade(): Promise<void> {
  const jobs = await jobsOf(database(), 'encode', await idsInMaking());
  await removeMaking((id) => jobs.get(id)?.state !== 'waiting');
}
