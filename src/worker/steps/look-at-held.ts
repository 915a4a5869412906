import { OPEN_TO, openEnd } from '@/core/drop';
import { differencesOf } from '@/core/parts';
import type { MeantWords } from '@/desk/drop/meant';
import { hearOfMatches } from '@/desk/rights/hear-of-matches';
import type { SiteStatus } from '@/sites/contract';
import { transaction } from '@/store/database';
import { onItsWay } from './ask';
import { foundThere, hasOtherTime, isOpenedThere } from './held-there';
import { narrow } from './narrow';
import { SnagFound, type StepContext, type StepEnd } from './step';

/** A site that opens a video so long before its moment goes by its own clock. */
const CLOCKS_APART_SECONDS = 60;

/** Keeps that the site itself says the time that it was told. */
export async function confirmTime({ drop, keep }: StepContext, told: Date): Promise<void> {
  if (drop.confirmedOpensAt?.getTime() === told.getTime()) return;
  await keep({ confirmedOpensAt: told });
  drop.confirmedOpensAt = told;
}

/**
 * Looks at what a site shows and says of a drop that is held, and acts on all of it: who sees it, the time that it was told, and
 * its rights matches. What somebody has changed there is asked about; what came of a call of before is put right.
 * @returns what the site says; whether it has opened the video at the time that it was told, by its own clock; and, where that
 * came of a call of before, how the step ends
 * @throws SnagFound
 */
export async function lookAtHeld(
  context: StepContext,
  meant: MeantWords,
): Promise<{ status: SiteStatus; openedByIt: boolean; ends?: StepEnd }> {
  const { drop, adapter, session, profile, now, keep } = context;
  const { status } = await adapter.look(session, drop.siteVideoId ?? '');
  const { privacy, opensAt, matches } = status;
  await transaction((trx) => hearOfMatches(trx, drop, matches));
  const told = drop.siteOpensAt;
  if (told && opensAt?.getTime() === told.getTime()) await confirmTime(context, told);
  const apart = told && Math.abs(told.getTime() - now.getTime()) / 1000;
  const openedByIt = privacy === meant.end && apart !== undefined && apart <= CLOCKS_APART_SECONDS;
  if (openedByIt) return { status, openedByIt };
  const ours = onItsWay(drop.asking, now).length > 0;
  if (isOpenedThere(drop, status, profile)) {
    await keep({ openedTo: privacy });
    drop.openedTo = privacy;
    if (ours) return { status, openedByIt, ends: (await narrow(context, meant)) ?? { again: 1, fields: {} } };
    const differences = differencesOf('privacy', meant.privacy, privacy);
    throw new SnagFound(
      'difference',
      `Somebody has opened it ${OPEN_TO[openEnd(privacy)]} on ${profile.name}`,
      'Close it there until it is to open, or open it now',
      { parts: ['privacy'], differences },
    );
  }
  if (hasOtherTime(drop, status, profile)) {
    // Told, and not so yet: the site may not have taken it, or does so still.
    const isAsItWas = opensAt?.getTime() === drop.confirmedOpensAt?.getTime();
    // What the site has now; from here on it is told again.
    const now = { siteOpensAt: opensAt, confirmedOpensAt: opensAt };
    await keep(now);
    Object.assign(drop, now);
    if (!ours && !isAsItWas) {
      throw new SnagFound(
        'difference',
        `Somebody has changed the time at which ${profile.name} opens it`,
        'Set its time there once more, or set another',
      );
    }
  }
  const found = foundThere(status);
  if (found) {
    const { of, what, remedy, asks, owner } = found;
    throw new SnagFound(of, what, remedy, { asks, owner });
  }
  return { status, openedByIt };
}
