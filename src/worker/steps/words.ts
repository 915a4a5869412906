import { buffer } from 'node:stream/consumers';
import { readCaptions, writeWebvttCaptions } from '@/core/captions';
import { type GivenToSite, givenFrom, wordsToGive } from '@/core/drop';
import { movedCaptions } from '@/core/renditions';
import { type MeantWords, meantWords } from '@/desk/drop/meant';
import { pictureAt } from '@/desk/drop/picture-at';
import type { VideoRecord } from '@/desk/drop/record';
import { wordsShape } from '@/sites/words-shape';
import { captionText } from '@/store/captions';
import { database } from '@/store/database';
import { files } from '@/store/files/folder';
import { noteGiven } from '@/store/given-words';
import { askOfSight } from './ask';
import { SnagFound, type StepContext } from './step';

/** Captions as they fit the file that is sent: where its start is left off, they come earlier. */
async function captionsFor(id: string, { cut }: VideoRecord, { remedies }: MeantWords): Promise<string> {
  const text = (await captionText(database(), id)) ?? '';
  if (!cut?.facts || (!remedies.from && !remedies.to && !remedies.without)) return text;
  return writeWebvttCaptions(movedCaptions(readCaptions(Buffer.from(text)).captions, remedies, cut.facts));
}

/**
 * Tells which parts are others than those that the site was given last; all of them, where it was given nothing, or is to be
 * given all once more.
 */
function changedParts(was: GivenToSite | undefined, is: GivenToSite): (part: keyof GivenToSite) => boolean {
  return (part) => !was || JSON.stringify(was[part]) !== JSON.stringify(is[part]);
}

/**
 * Gives the site title, text, tags, declarations, thumbnail, captions and playlists as the record has them now, as far as it
 * does not have them: what somebody has changed there in another field stays. What was given is kept. Each call sets a whole
 * value, so that a second time changes nothing.
 */
export async function giveWords(context: StepContext, siteVideoId: string): Promise<MeantWords> {
  const { adapter, session, record, channel, drop, keep } = context;
  const meant = meantWords(record, channel, drop, context.profile);
  const [open] = meant.fitted.findings;
  if (open) throw new SnagFound('refused', open.what, 'Change it on the Sheet, then try again');
  await wordsShape(context.profile)
    .validate(meant.words)
    .catch((error: Error) => {
      throw new SnagFound('refused', error.message, 'Change it on the Sheet, then try again');
    });
  const [was, is] = [drop.sentWords, meant.asText].map(givenFrom);
  if (!is) throw new Error('Nothing is meant');
  const changed = changedParts(was, is);
  // Until it is live the words carry who may see it, which changes though they do not; somebody may have closed it since.
  const asBefore = drop.liveAt !== undefined && !changed('privacy') && !changed('passwordMark');
  const privacy = asBefore ? undefined : meant.privacy;
  const words = wordsToGive(was?.words, meant.words);
  if (privacy !== undefined || Object.keys(words).length > 0) {
    const give = () => adapter.describe(session, siteVideoId, words, privacy, meant.password);
    await (privacy === undefined ? give() : askOfSight(context, privacy, give));
  }
  const picture = pictureAt(record, context.profile);
  if (picture && meant.pictureDigest && adapter.picture && changed('pictureDigest')) {
    // A thumbnail has a few megabytes at most, so it may be held as a whole.
    await adapter.picture(session, siteVideoId, await buffer(files().open(picture.fileKey)), picture.type);
  }
  if (meant.moment && changed('moment')) await adapter.moment?.(session, siteVideoId, meant.moment);
  if (adapter.captions && changed('captions')) {
    const tracks = await Promise.all(
      meant.captions.map(async ({ id, language }) => ({ language, webvtt: await captionsFor(id, record, meant) })),
    );
    await adapter.captions(session, siteVideoId, tracks);
  }
  if (changed('playlists')) await adapter.groups?.place(session, siteVideoId, meant.playlists);
  await keep({ sentWords: meant.asText });
  await noteGiven(database(), drop.id, meant.asText);
  return meant;
}
