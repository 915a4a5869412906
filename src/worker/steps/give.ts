import { buffer } from 'node:stream/consumers';
import { readCaptions, writeWebvttCaptions } from '@/core/captions';
import { onlyParts, PARTS, type PartName, type PartsGiven, partFindings, partNames, partsToGive } from '@/core/parts';
import { movedCaptions } from '@/core/renditions';
import { type MeantWords, meantWords } from '@/desk/drop/meant';
import { pictureAt } from '@/desk/drop/picture-at';
import type { VideoRecord } from '@/desk/drop/record';
import { log } from '@/desk/log';
import { AllowanceSpent, type CarriedParts, SiteError, type SiteGift } from '@/sites/contract';
import { type Database, database, transaction } from '@/store/database';
import { addDropEvent } from '@/store/drop/events';
import { atSite, confirmParts, noteAskedParts, noteFailedParts, noteGivenParts, partsOfDrop } from '@/store/drop/parts';
import type { Drop } from '@/store/drop/shape';
import { files } from '@/store/files/folder';
import { newId } from '@/store/ids';
import { captionText } from '@/store/record/captions';
import { askOfSight } from './ask';
import { SnagFound, type StepContext } from './step';

/** What could not be given, and need not be right before people see the video, is tried again after so long, and later each time. */
const AGAIN_SECONDS = 600;
const LONGEST_AGAIN_SECONDS = 24 * 3600;
/** So often a drop on its way waits for such a part where the site is busy or away; then it goes on without. */
const PATIENT_TRIES = 3;

/** Captions as they fit the file that is sent: where its start is left off, they come earlier. */
async function captionsFor(id: string, { cut }: VideoRecord, { remedies }: MeantWords): Promise<string> {
  const text = (await captionText(database(), id)) ?? '';
  if (!cut?.facts || (!remedies.from && !remedies.to && !remedies.without)) return text;
  return writeWebvttCaptions(movedCaptions(readCaptions(Buffer.from(text)).captions, remedies, cut.facts));
}

/** Parts as a site is given them: those that stand for files with what is in these. */
async function carried({ record, profile }: StepContext, meant: MeantWords, values: PartsGiven) {
  const { picture, captions, privacy: _, file: _file, video: _video, ...plain } = values;
  const parts: Partial<CarriedParts> = { ...plain };
  if (picture !== undefined) {
    const chosen = pictureAt(record, profile);
    // A thumbnail has a few megabytes at most, so it may be held as a whole.
    parts.picture = picture && chosen ? { bytes: await buffer(files().open(chosen.fileKey)), type: chosen.type } : '';
  }
  if (captions) {
    parts.captions = await Promise.all(
      captions.map(async ({ id, language }) => ({ language, webvtt: await captionsFor(id, record, meant) })),
    );
  }
  return parts;
}

/** What is known of the parts at the drop’s site now. */
export const partsThere = async ({ drop }: Pick<StepContext, 'drop'>) => atSite(await partsOfDrop(database(), drop));

/** Notes something of the parts while the drop is still ours. @throws ClaimLost */
export const noteParts = ({ keep }: StepContext, note: (trx: Database) => Promise<void>): Promise<void> =>
  transaction(async (trx) => {
    await keep({}, trx);
    await note(trx);
  });

/**
 * Gives the site each part as the record has it now, as far as the site has not confirmed it: what somebody has changed there
 * in another part stays. What it is asked is kept before, and what it has confirmed after. A part that it refuses keeps no other
 * back; one that has to be right before people see the video is told last.
 * @param but parts that are left as they are
 * @returns the parts that were given
 * @throws SiteError where one was refused that has to be right before people see the video
 */
export async function giveParts(
  context: StepContext,
  siteVideoId: string,
  but: readonly PartName[] = [],
): Promise<PartName[]> {
  const { adapter, record, channel, drop, profile } = context;
  const meant = meantWords(record, channel, drop, profile);
  const what = meant.fitted.findings[0]?.what ?? partFindings(meant.parts, profile)[0]?.what;
  if (what) throw new SnagFound('refused', what, 'Change it on the Sheet, then try again');
  const there = await partsThere(context);
  const toGive = partsToGive(there, meant.parts).filter((part) => !but.includes(part));
  const outcome: Outcome = { refused: [], failed: [] };
  const key = newId();
  for (const gift of adapter.gives) {
    const parts = gift.parts.filter((part) => toGive.includes(part));
    if (parts.length > 0) await giveTogether(context, siteVideoId, { gift, parts, meant, toGive, key }, outcome);
  }
  const asked = adapter.gives.flatMap((gift) => gift.parts);
  // Who sees it, where that goes by calls of its own; and what a new video has none of.
  const byOthers = toGive.filter((part) => !asked.includes(part));
  const none = (Object.keys(meant.parts) as PartName[]).filter((part) => !but.includes(part) && !there[part]);
  const rest = [...byOthers, ...none.filter((part) => !toGive.includes(part))];
  if (rest.length > 0) await noteParts(context, (trx) => noteGivenParts(trx, drop, onlyParts(meant.parts, rest)));
  const [first] = outcome.refused;
  if (first) throw first;
  return toGive.filter((part) => !outcome.failed.includes(part));
}

/** What did not go as it should. */
interface Outcome {
  refused: SiteError[];
  /** Parts that were not taken, and need not be right before people see the video. */
  failed: PartName[];
}

interface Giving {
  gift: SiteGift;
  parts: readonly PartName[];
  meant: MeantWords;
  toGive: readonly PartName[];
  /** All that is given at one time has the same. */
  key: string;
}

/** Gives parts in one request; where that is refused, each alone, so that what is wrong with one keeps no other back. */
async function giveTogether(context: StepContext, siteVideoId: string, giving: Giving, outcome: Outcome) {
  const { gift, parts, meant, toGive, key } = giving;
  const { drop, session } = context;
  const values = onlyParts(meant.parts, parts);
  const carriedParts = await carried(context, meant, values);
  // Until it is live the words carry who may see it, which changes though they do not; somebody may have closed it since.
  const withSight = gift.parts.includes('privacy') && (drop.liveAt === undefined || toGive.includes('privacy'));
  if (withSight) carriedParts.privacy = { to: meant.privacy, password: meant.password };
  await noteAskedParts(database(), drop, values, key);
  const give = () => gift.give(session, siteVideoId, carriedParts);
  try {
    await (withSight ? askOfSight(context, meant.privacy, give) : give());
  } catch (error) {
    if (!(error instanceof SiteError) || error.kind === 'permission' || error instanceof AllowanceSpent) throw error;
    const mayFail = parts.every((part) => !PARTS[part].mustBeRight) && !comesBackSoon(drop, error);
    if (mayFail) {
      outcome.failed.push(...parts);
      return noteFailed(context, parts, error, key);
    }
    if (error.kind !== 'refused') throw error;
    if (parts.length === 1 || gift.whole) {
      outcome.refused.push(error);
      await noteParts(context, (trx) => noteFailedParts(trx, drop, parts, { failed: error.message, askedKey: key }));
      return;
    }
    for (const part of parts) await giveTogether(context, siteVideoId, { ...giving, parts: [part] }, outcome);
    return;
  }
  await noteParts(context, (trx) => confirmParts(trx, drop, values, key));
}

/** Whether a drop that is on its way has time to wait until a site that is busy or away takes a part. */
const comesBackSoon = ({ state, attempts }: Drop, { kind }: SiteError): boolean =>
  state !== 'live' && state !== 'held' && attempts < PATIENT_TRIES && kind !== 'refused' && kind !== 'missing';

/** Gives a drop that is held what could not be given before, where it is time to try again. Nothing is stopped or put off by it. */
export async function giveAgain(context: StepContext): Promise<void> {
  const { drop, now } = context;
  const due = (await partsOfDrop(database(), drop)).filter(({ retryAt }) => retryAt && retryAt <= now);
  if (due.length === 0) return;
  const others = partNames().filter((part) => !due.some((each) => each.part === part));
  try {
    await giveParts(context, drop.siteVideoId ?? '', others);
  } catch (error) {
    if (!(error instanceof SiteError || error instanceof SnagFound)) throw error;
    log.info({ drop: drop.id, why: error.message }, 'not given again yet');
  }
}

/** What need not be right before people see the video is told, and tried again. */
async function noteFailed(
  context: StepContext,
  parts: readonly PartName[],
  error: SiteError,
  askedKey: string,
): Promise<void> {
  const { drop, profile } = context;
  const labels = new Intl.ListFormat('en').format(parts.map((part) => PARTS[part].label));
  await noteParts(context, async (trx) => {
    const failed = error.message;
    const before = (await partsOfDrop(trx, drop)).find(({ part }) => part === parts[0]);
    const since = before?.failedAt ? (context.now.getTime() - before.failedAt.getTime()) / 1000 : 0;
    const againIn = Math.min(LONGEST_AGAIN_SECONDS, Math.max(AGAIN_SECONDS, 2 * since));
    await noteFailedParts(trx, drop, parts, { failed, askedKey, againIn });
    // What was told is not told again with each try.
    if (before?.failed === failed) return;
    await addDropEvent(
      trx,
      drop.id,
      'failed',
      `${profile.name} did not take the ${labels}: ${failed}. It is tried again`,
    );
  });
}
