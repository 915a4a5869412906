import { SnagFound, type Step } from './step';

const LOOK_AGAIN_SECONDS = 2;

/** Towards cleared: the site's checks and reviews are passed. */
export const clear: Step = async ({ drop, adapter, session }) => {
  const { checks } = await adapter.status(session, drop.siteVideoId ?? '');
  if (checks.verdict === 'passed') return { move: 'cleared', says: 'Cleared: the site’s checks are passed' };
  if (checks.verdict === 'found') throw new SnagFound('rights', checks.what, checks.remedy);
  return { again: LOOK_AGAIN_SECONDS, fields: { waiting: undefined, progress: { says: checks.says } } };
};
