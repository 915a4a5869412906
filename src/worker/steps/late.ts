import { spanName } from '@/core/delivery';
import { instantOf } from '@/core/release';
import type { MeantWords } from '@/desk/drop/meant';
import type { Drop } from '@/store/drop/shape';

/** What is opened so soon after its moment is not late. */
const ON_TIME_SECONDS = 2;

/** Whether a drop is being opened because its moment has come, and not by a word. */
export const isDueByItself = ({ state, openAsked, releasedFor }: Pick<Drop, 'state' | 'openAsked' | 'releasedFor'>) =>
  state === 'opening' && !openAsked && releasedFor !== undefined;

/** Whether somebody was told that it does not open at the moment for which it is being opened now. */
export const wasToldLate = ({ lateTold, stateSince }: Pick<Drop, 'lateTold' | 'stateSince'>): boolean =>
  lateTold !== undefined && lateTold >= stateSince;

/**
 * By how many seconds something is late; 0 where that is nothing to speak of.
 * @param wasTold whether somebody was told that it is: then it is said how late it was, however little
 */
export function secondsLate(moment: Date, now: Date, wasTold: boolean): number {
  const seconds = (now.getTime() - moment.getTime()) / 1000;
  if (wasTold) return Math.max(1, seconds);
  return seconds > ON_TIME_SECONDS ? seconds : 0;
}

/** The moment at which a drop that is being opened was to open. */
export const momentOf = ({ stateSince }: Pick<Drop, 'stateSince'>, { opensAt }: Pick<MeantWords, 'opensAt'>): Date =>
  opensAt ? instantOf(opensAt) : stateSince;

/** One moment at one site: what is kept from opening at it has one cause. @param site its id */
export const momentAtSite = ({ releasedFor = '' }: Pick<Drop, 'releasedFor'>, site: string): string =>
  `${site}: ${releasedFor}`;

/** How late, as people say it: 100 s, 4 min. */
export const lateWords = (seconds: number): string => (seconds < 120 ? `${Math.round(seconds)} s` : spanName(seconds));
