import type { SiteProfile } from './contract';
import { lanternfoldProfile } from './lanternfold/profile';

/** What every site takes, by id, in the order in which they are offered. A new site takes its line here. */
export const SITE_PROFILES: Record<string, SiteProfile> = {
  lanternfold: lanternfoldProfile,
};
