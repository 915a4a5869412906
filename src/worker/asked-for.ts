import type { CarriedState } from '@/core/drop';
import type { Asked } from '@/desk/site/session';
import type { SiteRequest } from '@/store/site-requests';

/** What each step asks a site for, as the page of a drop says it. */
const PURPOSES: Record<CarriedState, string> = {
  packing: 'take away what was there before',
  landing: 'bring the file and its words',
  settling: 'ask how far it is',
  clearing: 'ask what its checks say',
  proofing: 'set and read back what it shows',
  held: 'keep its opening time',
  opening: 'open it',
  closing: 'close it',
  removing: 'remove it',
};

/** Parts of an address that are words, and no names of things: these might be secrets. */
const WORD = /^[a-z][a-z-]{1,19}$/;
const MOST = 100;

/** The path of an address without ids and what follows a question mark. */
function plainPath(address: string): string {
  const parts = new URL(address).pathname.split('/').filter((part) => part !== '');
  return `/${parts.map((part) => (WORD.test(part) ? part : '…')).join('/')}`;
}

/** A request to a site as it is kept: what it was for, and no secret. */
export function requestFor(state: CarriedState, { method, address, status, milliseconds }: Asked): SiteRequest {
  return { method, purpose: `${PURPOSES[state]} · ${plainPath(address)}`.slice(0, MOST), status, milliseconds };
}
