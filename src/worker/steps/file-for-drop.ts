import { type CutFacts, reasonsNotTaken } from '@/core/delivery';
import { encoderOf, factsOfRecipe, megapixelsOf, type Recipe } from '@/core/renditions';
import { FILE_GONE } from '@/desk/cut-file';
import { tickedChannels } from '@/desk/drop/ticked';
import type { TickedChannel } from '@/desk/layers/record-values';
import { expectedHere, planOfVideo } from '@/desk/rendition/plan-of-video';
import { database, transaction } from '@/store/database';
import { dropsOf } from '@/store/drop/drops';
import type { DropFields } from '@/store/drop/rows';
import { files } from '@/store/files/folder';
import {
  keepRendition,
  madeBefore,
  planRendition,
  type Rendition,
  renditionAgain,
  renditionsOf,
} from '@/store/files/renditions';
import { askForJobs, askForJobsAnew, jobsOf } from '@/store/queue/jobs';
import { measurementOf } from '@/store/record/measurements';
import { allChannels } from '@/store/site/channels';
import { SnagFound, type StepContext } from './step';

const LOOK_SECONDS = 1;

/** The file of a drop, or what it waits for, in so many seconds. */
export type FileForDrop = { rendition: Rendition; says: string } | { again: number; fields: DropFields };

/**
 * The file that a drop goes out as: the cut where the site takes it as it is, or one that is made of it, which is asked for.
 * @throws SnagFound where there is none
 */
export async function fileForDrop(of: Pick<StepContext, 'record' | 'drop' | 'profile'>): Promise<FileForDrop> {
  const {
    record: { cut },
    drop,
  } = of;
  if (!cut) throw new SnagFound('file', 'There is no file', 'Add the video file, then try again');
  if (cut.state === 'refused') {
    throw new SnagFound('file', cut.refusal ?? 'The cut cannot be used', 'Replace the file, then try again');
  }
  if (cut.goneAt) throw new SnagFound('file', FILE_GONE, 'Add it again, then try again');
  if (cut.state !== 'ready' || !cut.facts || !cut.digest) {
    const says = cut.state === 'arriving' ? 'Waits for the cut to arrive' : 'Waits while the cut is read';
    return { again: LOOK_SECONDS, fields: { waiting: says } };
  }
  const db = database();
  const measurement = await measurementOf(db, cut.id);
  const plan = planOfVideo(of.record, await goesTo(of), measurement?.found, await renditionsOf(db, [cut.id]));
  const refusal = plan?.refused.get(drop.id);
  if (refusal) throw new SnagFound('file', refusal.refused, `${refusal.nearest}, then try again`);
  const planned = plan?.renditions.find((each) => each.for.some(({ key }) => key === drop.id));
  if (!planned) throw new SnagFound('file', 'No file is planned for this channel', 'Try again');
  const { recipe } = planned;
  if (!recipe) {
    const { fileKey, size, digest } = cut;
    const rendition = await keepRendition(db, { cutId: cut.id, settings: 'as it is', fileKey, size, digest });
    return { rendition, says: 'the file goes as it is' };
  }
  // Whether its sound has to change, and where shots begin, is known only once it has been looked over.
  if ((asksForLoudness(recipe) || followsShots(recipe)) && measurement?.state === 'waiting') {
    return { again: LOOK_SECONDS, fields: { waiting: 'Waits until the file has been looked over' } };
  }
  return await made(of, recipe, cut.id, cut.facts);
}

const followsShots = ({ picture }: Recipe) => picture !== 'copy' && picture.framed !== undefined;
const asksForLoudness = ({ sound }: Recipe) => typeof sound === 'object' && sound.loudness !== undefined;

/** All channels of the video, so that those that can share a file do. */
async function goesTo({ drop }: Pick<StepContext, 'drop'>): Promise<TickedChannel[]> {
  const db = database();
  const [drops, channels] = await Promise.all([dropsOf(db, [drop.videoId]), allChannels(db)]);
  return tickedChannels(channels, drops);
}

/** The file of a recipe: ready, or being made. */
async function made(
  { record, profile }: Pick<StepContext, 'record' | 'profile'>,
  recipe: Recipe,
  cutId: string,
  facts: CutFacts,
): Promise<FileForDrop> {
  const db = database();
  const expected = expectedHere(recipe, record, await madeBefore(db))?.size.likely ?? 0;
  const about = { expected: Math.round(expected), encoder: encoderOf(recipe), megapixels: megapixelsOf(recipe, facts) };
  const rendition = await planRendition(db, cutId, recipe, about);
  if (rendition.state === 'failed') {
    const what = `The file for ${profile.name} could not be made: ${rendition.trouble ?? ''}`;
    throw new SnagFound('file', what, 'Try again, or choose other file settings first');
  }
  if (rendition.state === 'ready') {
    const here = await files()
      .size(rendition.fileKey)
      .catch(() => undefined);
    if (here === rendition.size) {
      const [reason] = reasonsNotTaken(factsOfRecipe(recipe, facts, rendition.size), profile);
      if (reason) throw new SnagFound('file', reason, 'Choose file settings with fewer bits, then try again');
      return { rendition, says: 'the file for the site is made' };
    }
    // It was taken off the disk since; it is made once more.
    await makeAgain(rendition.id);
  } else if (rendition.state === 'gone') {
    await makeAgain(rendition.id);
  } else {
    await askForJobs(db, 'encode', [rendition.id]);
  }
  const job = (await jobsOf(db, 'encode', [rendition.id])).get(rendition.id);
  const { says = 'waits for its turn', fraction, secondsLeft } = job?.progress ?? {};
  const waiting = job?.trouble && !job.running ? `Making the file: ${job.trouble}` : undefined;
  return {
    again: LOOK_SECONDS,
    fields: { waiting, progress: { says: job?.held ? 'on hold' : says, fraction, secondsLeft } },
  };
}

const makeAgain = (id: string) =>
  transaction(async (trx) => {
    await renditionAgain(trx, id);
    await askForJobsAnew(trx, 'encode', [id]);
  });
