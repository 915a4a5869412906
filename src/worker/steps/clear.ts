import { STOP_WORDS } from '@/core/drop';
import { givenParts, type PartName } from '@/core/parts';
import { meantWords } from '@/desk/drop/meant';
import { hearOfMatches } from '@/desk/rights/hear-of-matches';
import type { SiteChecks } from '@/sites/contract';
import { database, transaction } from '@/store/database';
import { noteHandedIn, noteReviewed } from '@/store/drop/reviews';
import { giveParts, partsThere } from './give';
import { lookAgain, SnagFound, type Step, type StepContext } from './step';
import { keepVersions } from './versions';

/** Towards cleared: the site's checks and reviews are passed. */
export const clear: Step = async (context) => {
  const { drop, adapter, session, profile, now } = context;
  // After something was turned down in review, all of it goes once more, as it is now.
  if (await isForgotten(context)) await giveParts(context, drop.siteVideoId ?? '');
  const { checks, matches, versions } = (await adapter.look(session, drop.siteVideoId ?? '')).status;
  await transaction((trx) => hearOfMatches(trx, drop, matches));
  await keepVersions(context, versions);
  if (profile.abilities.review) await hearOfReview(context, checks);
  if (checks.verdict === 'passed') return { move: 'cleared', says: STOP_WORDS.cleared };
  if (checks.verdict === 'found') {
    const { of, what, remedy, asks, owner } = checks;
    throw new SnagFound(of, what, remedy, { asks, owner });
  }
  const kind = profile.abilities.review ? 'review' : 'processing';
  return lookAgain(drop, now, kind, { progress: { says: checks.says } });
};

/** Whether a part that its site had is to be given once more; what could not be given is tried again by itself. */
async function isForgotten(context: StepContext): Promise<boolean> {
  const { drop, channel, record, profile } = context;
  const there = await partsThere(context);
  const wanted = Object.keys(meantWords(record, channel, drop, profile).parts) as PartName[];
  return wanted.some((part) => there[part] && there[part].given === undefined && there[part].failed === undefined);
}

/** Keeps each time that it is handed in for review, and what came of it. */
async function hearOfReview(context: StepContext, checks: SiteChecks): Promise<void> {
  const { drop, channel, record, profile } = context;
  const db = database();
  const given = JSON.stringify({
    ...meantWords(record, channel, drop, profile).parts,
    ...givenParts(await partsThere(context)),
  });
  // Its answer may be there at the first look.
  await noteHandedIn(db, { id: drop.id, since: drop.stateSince }, channel.site, given);
  if (checks.verdict === 'passed') await noteReviewed(db, drop.id, { approved: true });
  if (checks.verdict === 'found')
    await noteReviewed(db, drop.id, { approved: false, reason: checks.what, remedy: checks.remedy });
}
