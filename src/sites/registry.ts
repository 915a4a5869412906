import type { SiteAdapter } from './contract';
import { fieldgate } from './fieldgate/adapter';
import { lanternfold } from './lanternfold/adapter';
import { onlySiteErrors } from './only-site-errors';
import { pipwire } from './pipwire/adapter';
import { stallmarket } from './stallmarket/adapter';

/** Every site that Kettle Drop can speak to, by id. A new site takes its line here. */
export const SITES: Record<string, { make: (address: string) => SiteAdapter; port: number }> = {
  lanternfold: { make: lanternfold, port: 0 },
  fieldgate: { make: fieldgate, port: 1 },
  pipwire: { make: pipwire, port: 2 },
  stallmarket: { make: stallmarket, port: 3 },
};

const made = new Map<string, SiteAdapter>();

/** The ids of all sites, in the order in which they are offered. */
export const siteIds = (): string[] => Object.keys(SITES);

/**
 * The adapter of a site. Its address is KETTLE_SITE_<ID>, or on this machine from `firstPort` up.
 * @throws RangeError where there is no such site
 */
export function siteById(id: string, firstPort: number): SiteAdapter {
  const site = Object.hasOwn(SITES, id) ? SITES[id] : undefined;
  if (!site) throw new RangeError(`There is no site called ${id}`);
  const address = process.env[`KETTLE_SITE_${id.toUpperCase()}`] ?? `http://127.0.0.1:${firstPort + site.port}`;
  const adapter = made.get(address) ?? onlySiteErrors(site.make(address));
  made.set(address, adapter);
  return adapter;
}
