import { type End, isOpenTo, narrower, OPEN_TO, openEnd } from '@/core/drop';
import { isSame, type PartsGiven } from '@/core/parts';
import { type MeantWords, meantWords } from '@/desk/drop/meant';
import { noteGivenParts } from '@/store/drop/parts';
import { noteParts, partsThere } from './give';
import { showTo } from './show-to';
import type { Step, StepContext } from './step';

/** Shows a video to as few people at once as its record says, without sending anything else. */
export const close: Step = async (context) => {
  const { drop } = context;
  const meant = meantBy(context);
  const end = await fewestNow(context, meant);
  const notYet = await showTo(context, end, end === 'password' ? meant.password : undefined);
  if (notYet) return notYet;
  const there = await partsThere(context);
  const isGiven = Object.values(there).some((part) => part?.given !== undefined);
  const privacy = end === meant.end ? meant.parts.privacy : { to: end };
  const closed: PartsGiven = { privacy };
  if (isGiven && !isSame(there.privacy?.given, privacy)) {
    await noteParts(context, (trx) => noteGivenParts(trx, drop, closed));
  }
  return {
    move: isGiven ? 'closed' : 'closedUnproofed',
    says: saysOf(end),
    fields: {
      ...(end === 'private' && drop.openedTo && isOpenTo(drop.openedTo) && { closedFrom: openEnd(drop.openedTo) }),
      openedTo: end,
      confirmedTo: end,
      openAsked: false,
      siteOpensAt: undefined,
      confirmedOpensAt: undefined,
      releasedFor: undefined,
      liveAt: drop.liveAt ?? new Date(),
    },
  };
};

/**
 * To whom it is to be shown now: where its record is set to more people meanwhile, that is for changes to be sent. What the site
 * has closed already stays so, whether or not that was written down.
 */
async function fewestNow({ drop, adapter, session }: StepContext, meant: MeantWords): Promise<End> {
  const end = narrower(drop.openedTo ?? 'private', meant.end);
  if (end === 'private') return end;
  return narrower(end, (await adapter.look(session, drop.siteVideoId ?? '')).status.privacy);
}

const saysOf = (end: End): string =>
  end === 'private'
    ? 'Closed: private now'
    : end === 'everyone'
      ? 'Still open to everyone'
      : `Open ${OPEN_TO[end]} only now`;

const meantBy = ({ record, channel, drop, profile }: StepContext): MeantWords =>
  meantWords(record, channel, drop, profile);
