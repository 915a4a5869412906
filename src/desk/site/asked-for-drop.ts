import type { Use } from '@/core/work';
import type { Session } from '@/sites/contract';
import { database } from '@/store/database';
import { keepRequests, type SiteRequest } from '@/store/drop/site-requests';
import { log } from '../log';
import { type Asked, sessionFor } from './session';

/** A transfer in many parts asks once for each. */
const MOST_ASKED = 5000;

/** Parts of an address that are words, and no names of things: these might be secrets. */
const WORD = /^[a-z][a-z-]{1,19}$/;
const MOST_SIGNS = 100;

/** The path of an address without ids and what follows a question mark. */
function plainPath(address: string): string {
  const parts = new URL(address).pathname.split('/').filter((part) => part !== '');
  return `/${parts.map((part) => (WORD.test(part) ? part : '…')).join('/')}`;
}

/** A request to a site as it is kept: what it was for, and no secret. */
export function requestFor(purpose: string, { method, address, status, milliseconds }: Asked): SiteRequest {
  return { method, purpose: `${purpose} · ${plainPath(address)}`.slice(0, MOST_SIGNS), status, milliseconds };
}

/** Asks a site something for a drop. Each request is kept for the page of the drop, also where it failed. */
export const askedForDrop = <T>(
  dropId: string,
  accountId: string,
  purpose: string,
  use: Use,
  ask: (session: Session) => Promise<T>,
): Promise<T> => askedForDrops([dropId], accountId, purpose, use, ask);

/**
 * Asks a site something for drops together. Each request is kept for the page of each, also where it failed.
 * @param purpose what it is for, as that page says it
 */
export async function askedForDrops<T>(
  dropIds: readonly string[],
  accountId: string,
  purpose: string,
  use: Use,
  ask: (session: Session) => Promise<T>,
): Promise<T> {
  const asked: SiteRequest[] = [];
  const session = sessionFor(accountId, use, (request) => {
    if (asked.length < MOST_ASKED) asked.push(requestFor(purpose, request));
  });
  try {
    return await ask(session);
  } finally {
    for (const dropId of dropIds) {
      await keepRequests(database(), dropId, asked).catch((error: Error) =>
        log.warn({ why: error.message }, 'what a site was asked is not kept'),
      );
    }
  }
}
