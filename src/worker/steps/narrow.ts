import { isWider } from '@/core/drop';
import type { MeantWords } from '@/desk/drop/meant';
import { showTo } from './show-to';
import type { StepContext, StepEnd } from './step';

/** Fields of a drop whose site opens it at no time. */
export const NO_TIME = { siteOpensAt: undefined, confirmedOpensAt: undefined };

/**
 * Shows the video to fewer people where fewer are to see it now, or where it was asked to be opened and never was confirmed.
 * This comes before all else, so that nothing that is wrong with the words keeps it open. Until the site says that it is so, the
 * step ends with what is returned.
 */
export async function narrow(
  context: StepContext,
  { privacy, password }: Pick<MeantWords, 'privacy' | 'password'>,
): Promise<StepEnd | undefined> {
  const { drop, keep } = context;
  const isOpen = drop.openedTo !== undefined && isWider(drop.openedTo, privacy);
  // A time that the site was told may come while its words are changed.
  if (!isOpen && !drop.siteOpensAt) return undefined;
  const notYet = await showTo(context, privacy, password);
  if (notYet) return notYet;
  const noted = { ...NO_TIME, ...(isOpen && { openedTo: privacy, openAsked: false }) };
  await keep(noted);
  Object.assign(drop, noted);
  return undefined;
}
