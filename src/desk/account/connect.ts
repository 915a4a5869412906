import { randomBytes } from 'node:crypto';
import { object } from 'yup';
import { SiteError } from '@/sites/contract';
import { siteIds } from '@/sites/registry';
import { database, transaction } from '@/store/database';
import { heldOfAccount, lookAtHeldOfAccount } from '@/store/drop/held';
import { announce } from '@/store/feed';
import {
  accountById,
  endAccount,
  keepAccount,
  keepConnectRequest,
  markAccountRemoved,
  takeConnectRequest,
} from '@/store/site/accounts';
import { allChannels, keepChannels } from '@/store/site/channels';
import { DeskError, found } from '../desk-error';
import { goOnAfterPermission } from '../drop/go-on';
import { idShape } from '../id-shape';
import { log } from '../log';
import { refreshPlaylists } from '../site/playlists';
import { sessionOf, site } from '../site/session';

const startShape = object({ accountId: idShape() }).noUnknown();

/**
 * Where the browser goes to sign in at a site.
 * @param redirectUri where it comes back to
 * @param input `accountId`, where one that is known is to sign in again
 */
export async function startConnecting(siteId: string, redirectUri: string, input: unknown = {}): Promise<string> {
  const { accountId } = await startShape.validate(input, { stripUnknown: false });
  if (!siteIds().includes(siteId)) throw new DeskError('not found', `There is no site called ${siteId}.`);
  const state = randomBytes(24).toString('base64url');
  try {
    const { address, verifier } = await site(siteId).authorisation.start(redirectUri, state);
    await keepConnectRequest(database(), { state, site: siteId, verifier, accountId });
    return address;
  } catch (error) {
    if (!(error instanceof SiteError)) throw error;
    const { name } = site(siteId).profile;
    throw new DeskError('site', `${name} cannot be reached to sign in. Try again in a moment.`);
  }
}

/** Who has signed in, and instead of whom. */
export interface Connected {
  name: string;
  insteadOf: string | undefined;
}

/**
 * Ends a sign-in with what the browser brought back: the account with its channels is kept, and drops that waited for the
 * permission go on. Who is connected now is returned, and who was meant to be where that is somebody else.
 * @param back the address that the browser came back to, with what the site gave it
 * @param redirectUri the address that the site was told
 */
export async function finishConnecting(siteId: string, back: URL, redirectUri: string): Promise<Connected> {
  const db = database();
  const state = back.searchParams.get('state') ?? '';
  const request = await takeConnectRequest(db, state);
  if (request?.site !== siteId) {
    throw new DeskError('not now', 'This sign-in is over or too old. Start it again from Channels.');
  }
  const adapter = site(siteId);
  try {
    const tokens = await adapter.authorisation.finish(back, redirectUri, state, request.verifier);
    const session = sessionOf(tokens);
    const account = await adapter.account(session);
    const channels = await adapter.channels(session);
    const accountId = await transaction(async (trx) => {
      const id = await keepAccount(trx, { ...account, site: siteId }, tokens);
      await keepChannels(trx, id, channels);
      await announce(trx, 'channels', id);
      return id;
    });
    log.info({ site: siteId, account: accountId, channels: channels.length }, 'account connected');
    for (const channel of (await allChannels(db)).filter((each) => each.accountId === accountId && each.granted)) {
      // Playlists are read again by themselves; what waits for the permission does not wait for them.
      await refreshPlaylists(channel.id).catch((error: Error) => {
        log.warn({ channel: channel.id, why: error.message }, 'playlists not read');
      });
    }
    await goOnAfterPermission(accountId);
    const meant = request.accountId === undefined ? undefined : await accountById(db, request.accountId);
    return { name: account.name, insteadOf: meant && meant.id !== accountId ? meant.name : undefined };
  } catch (error) {
    if (error instanceof SiteError) {
      throw new DeskError('site', `${adapter.profile.name} was not connected: ${error.message}.`);
    }
    throw error;
  }
}

const MOST_NAMED = 3;

/** What would not open at its time any more, were an account disconnected. */
export interface HeldOfAccount {
  /** The first of them, with the channel, and when each is to open: ISO 8601 in UTC. */
  first: { title: string; channel: string; opensAt: string | undefined }[];
  count: number;
}

/** Looks what is held on the channels of an account. */
export async function lookAtHeldOf(accountId: string): Promise<HeldOfAccount> {
  const db = database();
  found(await accountById(db, accountId), 'account');
  const { held, count } = await heldOfAccount(db, accountId, MOST_NAMED);
  const first = held.map(({ title, channel, opensAt }) => ({
    ...{ title: title || 'Without a title', channel },
    opensAt: opensAt?.toISOString(),
  }));
  return { first, count };
}

/** Takes an account's permission back at the site and forgets its tokens. Its channels and their history stay. */
export async function disconnect(accountId: string): Promise<void> {
  const db = database();
  const account = found(await accountById(db, accountId), 'account');
  if (account.tokens) {
    await site(account.site)
      .authorisation.revoke(account.tokens)
      .catch((error: Error) => {
        throw new DeskError('site', `The permission could not be taken back at the site: ${error.message}. Try again.`);
      });
  }
  await endAccount(db, accountId);
  await lookAtHeldOfAccount(db, accountId);
  await announce(db, 'channels', accountId);
  log.info({ site: account.site, account: accountId }, 'account disconnected');
}

/**
 * Takes a disconnected account from the pages. What went to its channels stays in the history of its videos; connected again,
 * it is back with all of it.
 * @throws DeskError where it is connected
 */
export async function removeAccount(accountId: string): Promise<void> {
  const db = database();
  const { name } = found(await accountById(db, accountId), 'account');
  if (!(await markAccountRemoved(db, accountId))) {
    throw new DeskError('not now', `Disconnect ${name} first, then remove it.`);
  }
  await announce(db, 'channels', accountId);
}
