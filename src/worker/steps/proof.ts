import {
  type Difference,
  differences,
  fieldsMeant,
  type GivenToSite,
  givenFrom,
  isGiven,
  STOP_WORDS,
  shownNow,
} from '@/core/drop';
import { tellShown } from '@/desk/differences/tell-shown';
import { goesToEnd, type MeantWords, meantShowing, meantWords } from '@/desk/drop/meant';
import { refreshPlaylists } from '@/desk/site/playlists';
import { database, transaction } from '@/store/database';
import type { Drop } from '@/store/drops';
import { givenTo } from '@/store/given-words';
import { renditionById } from '@/store/renditions';
import { removeLeftBehind } from './left-behind';
import { narrow } from './narrow';
import { SnagFound, type Step, type StepContext } from './step';
import { giveWords } from './words';

const short = (text: string) => (text.length > 80 ? `${text.slice(0, 77)}…` : text).replace(/\n/g, ' / ');

/** One difference as a colleague would say it. What is told by a digest alone has no words of its own. */
function differenceWords(site: string, { field, meant, shown }: Difference): string {
  if (field === 'file' || field === 'thumbnail') return `The ${field} on ${site} is not the one that was sent`;
  const [are, they] = field.endsWith('s') ? ['are', 'they'] : ['is', 'it'];
  return `The ${field} on ${site} ${are} “${short(shown)}”; ${they} should be “${short(meant)}”`;
}

/** What the site was given before what is meant now; undefined where it is given all. */
async function wordsBefore({ id, sentWords }: Drop, { asText }: MeantWords): Promise<GivenToSite | undefined> {
  if (sentWords !== asText) return givenFrom(sentWords);
  // They were given before a stop in between.
  return givenFrom((await givenTo(database(), id))[1]?.words);
}

/** Keeps and tells what somebody has changed at the site of a live video in fields that were not given now; it stops nothing. */
async function noteTheirs({ drop, profile, keep }: StepContext, found: readonly Difference[]): Promise<void> {
  const { all, fresh } = shownNow(drop.shows ?? [], found);
  const shows = all.length > 0 ? all : undefined;
  await transaction(async (trx) => {
    await keep({ shows }, trx);
    await tellShown(trx, drop, profile.name, fresh);
  });
  Object.assign(drop, { shows });
}

/** Towards proofed: read back, and it is what we meant. Words that were changed since they were sent go first. */
export const proof: Step = async (context) => {
  const { drop, channel, record, adapter, profile, session } = context;
  const siteVideoId = drop.siteVideoId ?? '';
  const meant = meantWords(record, channel, drop, profile);
  const stillOpen = await narrow(context, meant);
  if (stillOpen) return stillOpen;
  // What went up in vain, where the live video stays after all.
  await removeLeftBehind(context);
  const before = await wordsBefore(drop, meant);
  if (meant.asText !== drop.sentWords) await giveWords(context, siteVideoId);
  const rendition = drop.renditionId ? await renditionById(database(), drop.renditionId) : undefined;
  const showing = meantShowing(meant, profile, rendition?.digest);
  const reading = await adapter.readBack(session, siteVideoId);
  const all = differences(showing, reading);
  const found = drop.liveAt ? all.filter(({ field }) => isGiven(field, before, givenFrom(meant.asText))) : all;
  if (found.length > 0) {
    const list = found.map((difference) => differenceWords(profile.name, difference));
    const fields = found.map(({ field }) => field);
    const remedy = fields.includes('file')
      ? 'Remove it and send it again'
      : fields.includes('privacy')
        ? 'Try again to set it once more, or remove it there'
        : 'Try again to send the words once more, or keep what it shows';
    // What the site shows is not what was sent, so the next try has to send it once more.
    await context.keep({ sentWords: undefined });
    throw new SnagFound('difference', list.join('. '), remedy, { fields, differences: found });
  }
  if (drop.liveAt) await noteTheirs(context, all);
  // Their counts have changed; a site that does not answer now is read another time.
  if (meant.playlists.length > 0) await refreshPlaylists(channel.id).catch(() => undefined);
  const says = `${STOP_WORDS.proofed}: ${fieldsMeant(showing)} fields read back as meant`;
  return { move: goesToEnd(meant, drop) ? 'proofedAndOpening' : 'proofedAndHeld', says };
};
