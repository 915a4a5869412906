import type { Step } from './step';

/** Takes a video from everybody's sight at once, without sending anything else. */
export const close: Step = async ({ drop, adapter, session }) => {
  const siteVideoId = drop.siteVideoId ?? '';
  await adapter.showTo(session, siteVideoId, 'private');
  const { privacy } = await adapter.status(session, siteVideoId);
  if (privacy !== 'private') {
    return { again: 1, fields: { waiting: undefined, progress: { says: 'waits for the site' } } };
  }
  const sentWords = drop.sentWords && JSON.stringify({ ...JSON.parse(drop.sentWords), privacy: 'private' });
  return {
    move: sentWords ? 'closed' : 'closedUnproofed',
    says: 'Closed: private now',
    fields: { openedTo: 'private', openAsked: false, liveAt: drop.liveAt ?? new Date(), sentWords },
  };
};
