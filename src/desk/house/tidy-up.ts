import { forgetOldConnectRequests } from '@/store/accounts';
import { forgetOldChanges } from '@/store/changes';
import { allChannels } from '@/store/channels';
import { database } from '@/store/database';
import { forgetOldWaits } from '@/store/drops';
import { forgetOldEntries } from '@/store/feed';
import { files } from '@/store/files/folder';
import { removeAskedFiles } from '@/store/files/removals';
import { askForJobs } from '@/store/jobs';
import { forgetOldManyActs } from '@/store/many-acts';
import { deleteAsked } from '../video/delete-video';

/** The subject of work that is done for all there is. */
const EVERYTHING = 'everything';
const PLAYLISTS_AFTER_SECONDS = 300;

/** Asks for the work that comes again from time to time: for every channel, and for the house. */
export async function askForKeeping(): Promise<void> {
  const db = database();
  await askForJobs(db, 'tidy', [EVERYTHING]);
  const ids = (await allChannels(db)).map(({ id }) => id);
  // They were read when the account was connected.
  await askForJobs(db, 'playlists', ids, { seconds: PLAYLISTS_AFTER_SECONDS });
}

/** Takes away what nobody needs any more: old entries of the feed, sign-ins that were never ended, half files. */
export async function tidyUp(): Promise<void> {
  const db = database();
  await forgetOldEntries(db);
  await forgetOldConnectRequests(db);
  await forgetOldChanges(db);
  await forgetOldWaits(db);
  await forgetOldManyActs(db);
  await deleteAsked();
  await files().removeHalf();
  await removeAskedFiles(db);
}
