import { isOpenTo, OPEN_TO, openEnd, STOP_WORDS } from '@/core/drop';
import {
  differences,
  hasAll,
  onlyParts,
  PARTS,
  type PartName,
  type PartsAtSite,
  type PartsShown,
  partNames,
  shownNow,
} from '@/core/parts';
import { differenceWords } from '@/desk/differences/difference-words';
import { tellShown } from '@/desk/differences/tell-shown';
import { afterProof } from '@/desk/drop/after-proof';
import { type MeantWords, meantShowing, meantWords } from '@/desk/drop/meant';
import { refreshPlaylists } from '@/desk/site/playlists';
import { actAs } from '@/store/actor';
import { databaseTime } from '@/store/clock';
import { database, transaction } from '@/store/database';
import { atSite, forgetGiven, type KeptPart, noteShownParts, partsOfDrop, shownOtherwise } from '@/store/drop/parts';
import type { DropFields } from '@/store/drop/rows';
import { renditionById } from '@/store/files/renditions';
import { settings } from '@/store/settings';
import { swapFile } from './former';
import { giveParts, noteParts, partsThere } from './give';
import { removeLeftBehind } from './left-behind';
import { narrow } from './narrow';
import { SnagFound, type Step, type StepContext } from './step';

/** Keeps and tells what somebody has changed at the site of a live video in parts that were not given now; it stops nothing. */
async function noteTheirs(context: StepContext, showing: PartsShown, reading: PartsShown): Promise<void> {
  const { drop, profile, channel, keep } = context;
  await transaction(async (trx) => {
    await keep({}, trx);
    const { kept, fresh } = shownNow(shownOtherwise(await partsOfDrop(trx, drop)), showing, reading);
    await noteShownParts(trx, drop, kept);
    await actAs({ who: `site:${channel.site}` }, () => tellShown(trx, drop, profile.name, fresh));
  });
}

/** What a reading is held against: all but what could not be given, and need not be right before people see the video. */
function toCompare(showing: PartsShown, there: PartsAtSite): PartsShown {
  const failed = partNames().filter((part) => !PARTS[part].mustBeRight && there[part]?.failed !== undefined);
  return onlyParts(
    showing,
    partNames().filter((part) => !failed.includes(part)),
  );
}

/** Whether a part was given since this proofing began, so that nobody else can have changed it. */
function isGivenNow(part: PartName, kept: readonly KeptPart[], context: StepContext): boolean {
  const { drop, profile } = context;
  if (part === 'file') return true;
  const { givenAt } = kept.find((each) => each.part === part) ?? {};
  if (givenAt && givenAt >= drop.stateSince) return true;
  const along = PARTS[part].takenOverWith?.(profile);
  return along !== undefined && isGivenNow(along, kept, context);
}

/** The fields of a drop that opens in the seconds that a person has to stop it, by the changes that were sent. */
async function opensSoon({ end }: MeantWords): Promise<{ says: string; fields: DropFields }> {
  const { holdSeconds } = settings();
  const wordAt = new Date((await databaseTime(database())).getTime() + holdSeconds * 1000);
  const says = `Opens ${OPEN_TO[openEnd(end)]}${holdSeconds > 0 ? ` in ${holdSeconds} s` : ''}, as you said by sending the changes`;
  return { says, fields: { openAsked: true, wordAt } };
}

/** Towards proofed: read back, and it is what we meant. What was changed since it was given goes first. */
export const proof: Step = async (context) => {
  const { drop, channel, record, adapter, profile, session } = context;
  const siteVideoId = drop.siteVideoId ?? '';
  const meant = meantWords(record, channel, drop, profile);
  const stillOpen = await narrow(context, meant);
  if (stillOpen) return stillOpen;
  // What went up in vain, where the live video stays after all.
  await removeLeftBehind(context);
  if (!hasAll(await partsThere(context), meant.parts)) await giveParts(context, siteVideoId);
  const rendition = drop.renditionId ? await renditionById(database(), drop.renditionId) : undefined;
  const kept = await partsOfDrop(database(), drop);
  const showing = toCompare(meantShowing(meant, profile, rendition?.digest), atSite(kept));
  const { shown: reading } = await adapter.look(session, siteVideoId);
  const all = differences(showing, reading);
  const found = drop.liveAt ? all.filter(({ part }) => isGivenNow(part, kept, context)) : all;
  if (found.length > 0) {
    const list = found.map((difference) => differenceWords(profile.name, difference));
    const parts = [...new Set(found.map(({ part }) => part))];
    const remedy = parts.includes('file')
      ? 'Remove it and send it again'
      : parts.includes('privacy')
        ? 'Try again to set it once more, or remove it there'
        : 'Try again to send the words once more, or keep what it shows';
    // What the site shows is not what it was given, so the next try has to give it once more.
    await noteParts(context, async (trx) => {
      await forgetGiven(trx, drop, parts);
      await noteShownParts(trx, drop, shownNow({}, onlyParts(showing, parts), reading).kept);
    });
    throw new SnagFound('difference', list.join('. '), remedy, { parts, differences: found });
  }
  if (drop.liveAt) await noteTheirs(context, showing, reading);
  // Their counts have changed; a site that does not answer now is read another time.
  if (meant.playlists.length > 0) await refreshPlaylists(channel.id).catch(() => undefined);
  if (drop.former?.ends === 'swap' && !isOpenTo(drop.former.openedTo)) {
    // Nobody has seen it: it is put behind the link at once, and proofed as what it is then.
    await swapFile(context);
    return { again: 0, fields: {} };
  }
  const says = `${STOP_WORDS.proofed}: ${Object.keys(showing).length} parts read back as meant`;
  const after = afterProof(meant, drop, profile.opensItself === true);
  if (after === 'goes on') return { move: 'proofedAndOpening', says };
  if (after === 'is held') return { move: 'proofedAndHeld', says };
  return { move: 'proofedAndHeld', ...(await opensSoon(meant)) };
};
