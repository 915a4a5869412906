import { isWider } from '@/core/drop';
import { needsPerson } from '@/core/rights';
import type { SiteProfile, SiteStatus } from '@/sites/contract';
import type { Drop } from '@/store/drop/shape';

type Held = Pick<Drop, 'openedTo' | 'siteOpensAt'>;

/** Whether more people see a drop that is held than it was left for. */
export const isOpenedThere = (drop: Held, { privacy }: SiteStatus, profile: SiteProfile): boolean =>
  !profile.opensItself && isWider(privacy, drop.openedTo ?? 'private');

/** Whether its site has another time for it than it was told. */
export const hasOtherTime = (drop: Held, { opensAt }: SiteStatus, profile: SiteProfile): boolean =>
  profile.keepsTime === true && opensAt?.getTime() !== drop.siteOpensAt?.getTime();

/** What its site has found in it that a person has to see to. */
export function foundThere({ checks, matches }: SiteStatus) {
  if (checks.verdict !== 'found') return undefined;
  return checks.of !== 'rights' || matches === undefined || matches.some(needsPerson) ? checks : undefined;
}

/** Whether a drop that is held is still as it was left. @param status undefined where the video is gone */
export function isAsLeft(drop: Held, status: SiteStatus | undefined, profile: SiteProfile): boolean {
  if (!status) return false;
  return !isOpenedThere(drop, status, profile) && !hasOtherTime(drop, status, profile) && !foundThere(status);
}
