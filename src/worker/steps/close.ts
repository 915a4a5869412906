import { isSame } from '@/core/parts';
import { noteGivenParts } from '@/store/drop/parts';
import { noteParts, partsThere } from './give';
import { showTo } from './show-to';
import type { Step } from './step';

/** Takes a video from everybody's sight at once, without sending anything else. */
export const close: Step = async (context) => {
  const { drop } = context;
  const notYet = await showTo(context, 'private');
  if (notYet) return notYet;
  const there = await partsThere(context);
  const isGiven = Object.values(there).some((part) => part?.given !== undefined);
  const closed = { privacy: { to: 'private' as const } };
  if (isGiven && !isSame(there.privacy?.given, closed.privacy)) {
    await noteParts(context, (trx) => noteGivenParts(trx, drop, closed));
  }
  return {
    move: isGiven ? 'closed' : 'closedUnproofed',
    says: 'Closed: private now',
    fields: {
      openedTo: 'private',
      confirmedTo: 'private',
      openAsked: false,
      siteOpensAt: undefined,
      confirmedOpensAt: undefined,
      releasedFor: undefined,
      liveAt: drop.liveAt ?? new Date(),
    },
  };
};
