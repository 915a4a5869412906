import { isOpenTo, isWider } from '@/core/drop';
import { isAgreed } from '@/core/release';
import type { Drop } from '@/store/drop/shape';
import { goesToEnd, type MeantWords } from './meant';

/** What follows for a drop that was read back, and is as it was meant. */
export type AfterProof = 'goes on' | 'is held' | 'is held, and opens soon';

/** Whether a drop that goes to its end is shown to more people than its site shows it to now. */
export const opensToMore = ({ end }: Pick<MeantWords, 'end'>, { confirmedTo }: Pick<Drop, 'confirmedTo'>): boolean =>
  isOpenTo(end) && isWider(end, confirmedTo ?? 'private');

/**
 * What becomes of a drop that was proofed. Where it would be shown to more people, only what was agreed to opens it; and where
 * changes were sent of what was there before, a person has the seconds of a word to stop it.
 * @param opensItself whether its site opens everything by itself
 */
export function afterProof(
  meant: MeantWords,
  drop: Pick<Drop, 'confirmedTo' | 'openAsked' | 'releasedFor' | 'agreed'>,
  opensItself: boolean,
): AfterProof {
  if (!goesToEnd(meant, drop)) return 'is held';
  if (opensItself || drop.openAsked || !opensToMore(meant, drop)) return 'goes on';
  if (!isAgreed(drop.agreed, meant)) return 'is held';
  const isDue = drop.releasedFor === meant.releaseKey;
  return drop.agreed?.by === 'changes' && !isDue ? 'is held, and opens soon' : 'goes on';
}
