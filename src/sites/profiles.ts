import type { SiteProfile } from './contract';
import { fieldgateProfile } from './fieldgate/profile';
import { lanternfoldProfile } from './lanternfold/profile';
import { pipwireProfile } from './pipwire/profile';
import { stallmarketProfile } from './stallmarket/profile';

/** What every site takes, by id, in the order in which they are offered. A new site takes its line here. */
export const SITE_PROFILES: Record<string, SiteProfile> = {
  lanternfold: lanternfoldProfile,
  fieldgate: fieldgateProfile,
  pipwire: pipwireProfile,
  stallmarket: stallmarketProfile,
};
