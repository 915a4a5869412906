import { showTo } from './show-to';
import type { Step } from './step';

/** Takes a video from everybody's sight at once, without sending anything else. */
export const close: Step = async (context) => {
  const { drop } = context;
  const notYet = await showTo(context, 'private');
  if (notYet) return notYet;
  const sentWords = drop.sentWords && JSON.stringify({ ...JSON.parse(drop.sentWords), privacy: 'private' });
  return {
    move: sentWords ? 'closed' : 'closedUnproofed',
    says: 'Closed: private now',
    fields: {
      openedTo: 'private',
      confirmedTo: 'private',
      openAsked: false,
      siteOpensAt: undefined,
      confirmedOpensAt: undefined,
      releasedFor: undefined,
      liveAt: drop.liveAt ?? new Date(),
      sentWords,
    },
  };
};
