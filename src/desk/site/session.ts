import { setTimeout as pause } from 'node:timers/promises';
import type { Tokens } from '@/core/permission/tokens';
import { type Allowance, saysMore, type Use, waitForAllowance } from '@/core/work';
import { AllowanceSpent, type Session, type SiteAdapter, SiteError } from '@/sites/contract';
import { siteById } from '@/sites/registry';
import { toldAllowances } from '@/sites/told-allowance';
import { type Database, database } from '@/store/database';
import { lookAtHeldOfAccount } from '@/store/drop/held';
import { announce } from '@/store/feed';
import { settings } from '@/store/settings';
import { accountById, keepTokens, letRenewalGo, noteTakenBack, takeForRenewal } from '@/store/site/accounts';
import { allowancesOf, countRequest, keepAllowances } from '@/store/site/allowances';
import type { Channel } from '@/store/site/channels';

const SPARE_MILLISECONDS = 20_000;
/** Longer than a site may take to renew a token. */
const RENEWAL_SECONDS = 60;
const RENEWAL_LOOK_MILLISECONDS = 100;

/** The adapter of a site, at the address that the settings give. */
export function site(id: string): SiteAdapter {
  return siteById(id, settings().sitesPort);
}

/** Whether we may speak for a channel now. */
export function isOpenToUs(channel: Pick<Channel, 'accountState' | 'granted'>): boolean {
  return channel.accountState === 'connected' && channel.granted;
}

const isGood = (tokens: Tokens, stale: string | undefined) =>
  tokens.access !== stale && tokens.expiresAt > Date.now() + SPARE_MILLISECONDS;

/**
 * An account's permission at work. Whoever finds the token run out takes the account in hand and renews it, while others
 * look again until that is done. No lock and no transaction is held while the site is asked. Requests are counted before they
 * are made, over all workers, so that the site need not refuse any.
 * @param use what the requests are for: a part of what the site allows is kept for what is urgent
 * @param note hears of each request, once it is answered
 */
export function sessionFor(accountId: string, use: Use = 'urgent', note?: (request: Asked) => void): Session {
  let counted: Counted = { known: [], at: 0 };
  return {
    async heard(answer, { method, address, since }) {
      note?.({ method, address, status: answer?.status ?? 0, milliseconds: Math.round(performance.now() - since) });
      if (!answer) return;
      const seconds = (performance.now() - counted.at) / 1000;
      const news = toldAllowances(answer).filter((told) => saysMore(told, counted.known, seconds));
      await keepAllowances(database(), accountId, news);
    },
    async accessToken(stale) {
      const db = database();
      counted = await takeRequest(db, accountId, use);
      for (const until = performance.now() + RENEWAL_SECONDS * 1000; ; ) {
        const account = await accountById(db, accountId);
        if (account?.state !== 'connected' || !account.tokens) {
          throw new SiteError('permission', 'The account is not connected');
        }
        if (isGood(account.tokens, stale)) return account.tokens.access;
        if (await takeForRenewal(db, accountId, RENEWAL_SECONDS)) return renew(accountId, stale);
        if (performance.now() > until)
          throw new SiteError('unreachable', 'The permission could not be renewed in time');
        await pause(RENEWAL_LOOK_MILLISECONDS);
      }
    },
  };
}

/** A request with how it was answered; 0 is no answer. */
export interface Asked {
  method: string;
  address: string;
  status: number;
  milliseconds: number;
}

/** What was known of an account's allowances when a request was counted, and when that was. */
interface Counted {
  known: readonly Allowance[];
  /** By the clock of `performance.now`. */
  at: number;
}

/** Counts one request where the account may make it. @throws AllowanceSpent */
async function takeRequest(db: Database, accountId: string, use: Use): Promise<Counted> {
  const at = performance.now();
  const known = await allowancesOf(db, accountId);
  const wait = waitForAllowance(known, use, Math.random());
  if (wait > 0) throw new AllowanceSpent(wait);
  if (known.length > 0) await countRequest(db, accountId);
  return { known, at };
}

/** Renews the tokens of an account that is in our hands. Somebody may have done so between our looking and our taking. */
async function renew(accountId: string, stale: string | undefined): Promise<string> {
  const db = database();
  const account = await accountById(db, accountId);
  try {
    if (!account?.tokens) throw new SiteError('permission', 'The account is not connected');
    if (isGood(account.tokens, stale)) return account.tokens.access;
    const renewed = await site(account.site).authorisation.renew(account.tokens);
    await keepTokens(db, account, renewed);
    return renewed.access;
  } catch (error) {
    if (error instanceof SiteError && error.kind === 'permission' && account && (await noteTakenBack(db, account))) {
      await lookAtHeldOfAccount(db, accountId);
      await announce(db, 'channels', accountId);
    }
    throw error;
  } finally {
    await letRenewalGo(db, accountId);
  }
}

/** A session for tokens that have just been given, before there is an account. */
export function sessionOf(tokens: Tokens): Session {
  return { accessToken: async () => tokens.access, heard: async () => undefined };
}
