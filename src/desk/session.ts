import type { Tokens } from '@/core/permission/tokens';
import { type Session, type SiteAdapter, SiteError } from '@/sites/contract';
import { siteById } from '@/sites/registry';
import { accountById, endAccount, keepTokens } from '@/store/accounts';
import { database } from '@/store/database';
import { announce } from '@/store/feed';
import { settings } from '@/store/settings';

const SPARE_MILLISECONDS = 20_000;

/** The adapter of a site, at the address that the settings give. */
export function site(id: string): SiteAdapter {
  return siteById(id, settings().sitesPort);
}

/**
 * An account's permission at work. Whoever finds the token run out renews it while others wait for the same row, since a
 * refresh token serves once.
 */
export function sessionFor(accountId: string): Session {
  return {
    async accessToken(stale) {
      const db = database();
      const got = await db.transaction(async (trx): Promise<Tokens | SiteError> => {
        const account = await accountById(trx, accountId, true);
        if (!account?.tokens) return new SiteError('permission', 'The account is not connected');
        const { tokens } = account;
        if (tokens.access !== stale && tokens.expiresAt > Date.now() + SPARE_MILLISECONDS) return tokens;
        try {
          const renewed = await site(account.site).authorisation.renew(tokens);
          await keepTokens(trx, accountId, renewed);
          return renewed;
        } catch (error) {
          if (!(error instanceof SiteError) || error.kind !== 'permission') throw error;
          await endAccount(trx, accountId, 'taken back');
          await announce(trx, 'channels', accountId);
          return error;
        }
      });
      if (got instanceof SiteError) throw got;
      return got.access;
    },
  };
}

/** A session for tokens that have just been given, before there is an account. */
export function sessionOf(tokens: Tokens): Session {
  return { accessToken: async () => tokens.access };
}
