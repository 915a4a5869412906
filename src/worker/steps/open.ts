import type { Step } from './step';

/** Towards live: open to everyone, and only when the site says so. */
export const open: Step = async ({ drop, adapter, session }) => {
  const siteVideoId = drop.siteVideoId ?? '';
  await adapter.open(session, siteVideoId);
  const { privacy } = await adapter.status(session, siteVideoId);
  if (privacy !== 'everyone') {
    return { again: 1, fields: { waiting: undefined, progress: { says: 'waits for the site to open it' } } };
  }
  return {
    move: 'opened',
    says: 'Live: open to everyone',
    fields: { liveAt: drop.liveAt ?? new Date(), openAsked: true },
  };
};
