import { STOP_WORDS } from '@/core/drop';
import { hearOfMatches } from '@/desk/rights/hear-of-matches';
import { lookAgain, SnagFound, type Step } from './step';
import { giveWords } from './words';

/** Towards cleared: the site's checks and reviews are passed. */
export const clear: Step = async (context) => {
  const { drop, adapter, session, profile, now } = context;
  // After something was turned down in review, its words go once more, as they are now.
  if (drop.sentWords === undefined) await giveWords(context, drop.siteVideoId ?? '');
  const { checks, matches } = await adapter.status(session, drop.siteVideoId ?? '');
  await hearOfMatches(drop, matches);
  if (checks.verdict === 'passed') return { move: 'cleared', says: STOP_WORDS.cleared };
  if (checks.verdict === 'found') {
    const { of, what, remedy, asks, owner } = checks;
    throw new SnagFound(of, what, remedy, { asks, owner });
  }
  const kind = profile.abilities.review ? 'review' : 'processing';
  return lookAgain(drop, now, kind, { progress: { says: checks.says } });
};
