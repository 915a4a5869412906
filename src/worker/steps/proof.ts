import { type Difference, differences, fieldsMeant, isWider, STOP_WORDS } from '@/core/drop';
import { goesToEnd, type MeantWords, meantShowing, meantWords } from '@/desk/drop/meant';
import { refreshPlaylists } from '@/desk/site/playlists';
import { database } from '@/store/database';
import { renditionById } from '@/store/renditions';
import { removeLeftBehind } from './left-behind';
import { SnagFound, type Step, type StepContext } from './step';
import { giveWords } from './words';

const short = (text: string) => (text.length > 80 ? `${text.slice(0, 77)}…` : text).replace(/\n/g, ' / ');

/**
 * Shows the video to fewer people where fewer are to see it now. This comes before all else, so that nothing that is wrong
 * with the words keeps it open.
 */
async function narrow({ drop, adapter, session, keep }: StepContext, { privacy, password }: MeantWords): Promise<void> {
  const isOpen = drop.openedTo !== undefined && isWider(drop.openedTo, privacy);
  // A time that the site was told may come while its words are changed.
  if (!isOpen && !drop.siteOpensAt) return;
  await adapter.showTo(session, drop.siteVideoId ?? '', privacy, password);
  await keep({ siteOpensAt: undefined, ...(isOpen && { openedTo: privacy, openAsked: false }) });
}

/** One difference as a colleague would say it. What is told by a digest alone has no words of its own. */
function differenceWords(site: string, { field, meant, shown }: Difference): string {
  if (field === 'file' || field === 'thumbnail') return `The ${field} on ${site} is not the one that was sent`;
  const [are, they] = field.endsWith('s') ? ['are', 'they'] : ['is', 'it'];
  return `The ${field} on ${site} ${are} “${short(shown)}”; ${they} should be “${short(meant)}”`;
}

/** Towards proofed: read back, and it is what we meant. Words that were changed since they were sent go first. */
export const proof: Step = async (context) => {
  const { drop, channel, record, adapter, profile, session } = context;
  const siteVideoId = drop.siteVideoId ?? '';
  const meant = meantWords(record, channel, drop, profile);
  await narrow(context, meant);
  // What went up in vain, where the live video stays after all.
  await removeLeftBehind(context);
  if (meant.asText !== drop.sentWords) await giveWords(context, siteVideoId);
  const rendition = drop.renditionId ? await renditionById(database(), drop.renditionId) : undefined;
  const showing = meantShowing(meant, profile, rendition?.digest);
  const reading = await adapter.readBack(session, siteVideoId);
  const found = differences(showing, reading);
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
  // Their counts have changed; a site that does not answer now is read another time.
  if (meant.playlists.length > 0) await refreshPlaylists(channel.id).catch(() => undefined);
  const says = `${STOP_WORDS.proofed}: ${fieldsMeant(showing)} fields read back as meant`;
  return { move: goesToEnd(meant, drop) ? 'proofedAndOpening' : 'proofedAndHeld', says };
};
