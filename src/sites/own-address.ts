import { SiteError } from './contract';

/**
 * An address that a site has named, for a request that carries a token: on the site's own origin, whatever it says
 * (RFC 6750, section 5.3: tokens go to no server but the one that they are meant for).
 * @param site the site's own address
 * @param named what it named, absolute or relative to its own
 * @throws SiteError 'refused' where it leads elsewhere
 */
export function ownAddress(site: string, named: string): string {
  if (named === '' || !URL.canParse(named, site)) throw new SiteError('missing', 'The site has forgotten the transfer');
  const address = new URL(named, site);
  if (address.origin === new URL(site).origin) return address.href;
  throw new SiteError('refused', `The site wants the file at ${address.host}, which is not its own address`);
}
