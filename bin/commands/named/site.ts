import { DeskError } from '@/desk/desk-error';
import type { SiteProfile } from '@/sites/contract';
import { SITE_PROFILES } from '@/sites/profiles';

/** The site of a name as people or as the program write it: Lanternfold, lanternfold. @throws DeskError */
export function siteNamed(name: string): SiteProfile {
  const wanted = name.toLowerCase();
  const found = Object.values(SITE_PROFILES).find((site) => site.id === wanted || site.name.toLowerCase() === wanted);
  if (found) return found;
  const known = Object.keys(SITE_PROFILES).join(', ');
  throw new DeskError('not found', `There is no site called ${name}; there are ${known}.`);
}
