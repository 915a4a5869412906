import { buffer } from 'node:stream/consumers';
import { type MeantWords, meantWords } from '@/desk/meant';
import { files } from '@/store/files/folder';
import type { StepContext } from './step';

/**
 * Gives the site title, text, tags, thumbnail and playlists as the record has them now, and keeps what was given. Each
 * call sets a whole value, so that a second time changes nothing.
 */
export async function giveWords(context: StepContext, siteVideoId: string): Promise<MeantWords> {
  const { adapter, session, record, drop, keep } = context;
  const meant = meantWords(record, drop, adapter.profile);
  await adapter.describe(session, siteVideoId, meant.words, meant.privacy);
  const { picture } = record;
  if (picture && adapter.picture) {
    // A thumbnail has a few megabytes at most, so it may be held as a whole.
    await adapter.picture(session, siteVideoId, await buffer(files().open(picture.fileKey)), picture.type);
  }
  await adapter.groups?.place(session, siteVideoId, meant.playlists);
  await keep({ sentWords: meant.asText });
  return meant;
}
