import type { Tokens } from '@/core/permission/tokens';
import { inSeconds, now } from '@/store/clock';
import type { Database } from '@/store/database';
import { newId } from '@/store/ids';
import { isSealedAnew, seal, unseal } from '@/store/vault';

export type AccountState = 'connected' | 'taken back' | 'disconnected' | 'removed';

export interface Account {
  id: string;
  site: string;
  siteAccountId: string;
  name: string;
  scope: string;
  state: AccountState;
  tokens: Tokens | undefined;
  /** When its tokens or its state last changed. */
  updatedAt: Date;
}

interface Row extends Omit<Account, 'tokens'> {
  sealedTokens: string | null;
}

const columns = ['id', 'site', 'siteAccountId', 'name', 'scope', 'state', 'sealedTokens', 'updatedAt'];

function fromRow({ sealedTokens, ...rest }: Row): Account {
  return { ...rest, tokens: sealedTokens === null ? undefined : (JSON.parse(unseal(sealedTokens)) as Tokens) };
}

/** Keeps an account with its tokens, or gives an account that is known already its new ones. Its id is returned. */
export async function keepAccount(
  db: Database,
  account: Pick<Account, 'site' | 'siteAccountId' | 'name' | 'scope'>,
  tokens: Tokens,
): Promise<string> {
  const at = now(db);
  const sealedTokens = seal(JSON.stringify(tokens));
  await db('accounts')
    .insert({ id: newId(), ...account, sealedTokens, state: 'connected', createdAt: at, updatedAt: at })
    .onConflict(['site', 'siteAccountId'])
    .merge(['name', 'scope', 'sealedTokens', 'state', 'updatedAt']);
  const row = await db('accounts').where({ site: account.site, siteAccountId: account.siteAccountId }).first('id');
  return row.id;
}

export async function accountById(db: Database, id: string): Promise<Account | undefined> {
  const row: Row | undefined = await db('accounts').where({ id }).first(columns);
  return row && fromRow(row);
}

/**
 * Whether an account is connected, and became so, or had its tokens renewed, after a time of the database's. Until the
 * transaction ends nobody connects it, so that what is written in it is found by whoever does.
 */
export async function isConnectedSince(trx: Database, id: string, since: Date): Promise<boolean> {
  const row: { state: AccountState; updatedAt: Date } | undefined = await trx('accounts')
    .where({ id })
    .forUpdate()
    .first('state', 'updatedAt');
  return row?.state === 'connected' && row.updatedAt.getTime() >= since.getTime();
}

/** Every account, in the order in which they were connected. */
export async function allAccounts(db: Database): Promise<Omit<Account, 'tokens' | 'updatedAt'>[]> {
  return db('accounts')
    .select(columns.filter((column) => column !== 'sealedTokens' && column !== 'updatedAt'))
    .orderBy('id');
}

/**
 * Takes an account's tokens in hand for renewing them, which one process may do at a time, since a refresh token serves
 * once. Whether they are ours is returned. Whoever dies with them in hand holds the others up for so many seconds.
 */
export async function takeForRenewal(db: Database, id: string, seconds: number): Promise<boolean> {
  const taken = await db('accounts')
    .where({ id, state: 'connected' })
    .where((query) => query.whereNull('renewingUntil').orWhere('renewingUntil', '<', now(db)))
    .update({ renewingUntil: inSeconds(db, seconds) });
  return taken > 0;
}

/** Lets the tokens of an account go that were in hand for renewing. */
export async function letRenewalGo(db: Database, id: string): Promise<void> {
  await db('accounts').where({ id }).update({ renewingUntil: null });
}

/** The row of an account as it was read: one that was connected anew meanwhile, or disconnected, is another by now. */
const asRead = (db: Database, { id, updatedAt }: Pick<Account, 'id' | 'updatedAt'>) =>
  db('accounts').where({ id, updatedAt, state: 'connected' });

/** Keeps the renewed tokens of an account, unless it was connected anew or disconnected since it was read. */
export async function keepTokens(db: Database, account: Account, tokens: Tokens): Promise<void> {
  const fresh = { sealedTokens: seal(JSON.stringify(tokens)), renewingUntil: null, updatedAt: now(db) };
  await asRead(db, account).update(fresh);
}

/**
 * Notes that the site no longer takes the tokens of an account, unless it was connected anew since they were read. Whether it
 * was noted is returned.
 */
export async function noteTakenBack(db: Database, account: Account): Promise<boolean> {
  const ended = { sealedTokens: null, renewingUntil: null, state: 'taken back', updatedAt: now(db) };
  return (await asRead(db, account).update(ended)) > 0;
}

/** The accounts whose tokens are sealed with an older key. */
export async function accountsToSealAnew(db: Database): Promise<string[]> {
  const rows: { id: string; sealedTokens: string }[] = await db('accounts')
    .whereNotNull('sealedTokens')
    .select('id', 'sealedTokens');
  return rows.filter(({ sealedTokens }) => !isSealedAnew(sealedTokens)).map(({ id }) => id);
}

/** Seals an account's tokens with the newest key. Where they were renewed meanwhile that is done already. */
export async function sealAccountAnew(db: Database, id: string): Promise<boolean> {
  const row: Pick<Row, 'sealedTokens'> | undefined = await db('accounts').where({ id }).first('sealedTokens');
  if (!row?.sealedTokens) return false;
  const { sealedTokens } = row;
  const anew = seal(unseal(sealedTokens));
  return (await db('accounts').where({ id, sealedTokens }).update({ sealedTokens: anew })) > 0;
}

/** Forgets the tokens of an account that a person has disconnected. */
export async function endAccount(db: Database, id: string): Promise<void> {
  await db('accounts')
    .where({ id })
    .update({ sealedTokens: null, renewingUntil: null, state: 'disconnected', updatedAt: now(db) });
}

/** Marks a disconnected account as removed. Whether it was one is returned. */
export async function markAccountRemoved(db: Database, id: string): Promise<boolean> {
  const disconnected = db('accounts').where({ id, state: 'disconnected' });
  return (await disconnected.update({ state: 'removed', updatedAt: now(db) })) > 0;
}

const REQUEST_KEPT_SECONDS = 3600;

/**
 * Keeps what a browser must bring back from a site's consent page: the state, and the PKCE verifier sealed.
 * @param accountId the account that is meant to sign in, where it is one that is known
 */
export async function keepConnectRequest(
  db: Database,
  {
    state,
    site,
    verifier,
    accountId,
  }: { state: string; site: string; verifier: string; accountId: string | undefined },
): Promise<void> {
  const sealedVerifier = seal(verifier);
  await db('connectRequests').insert({ state, site, sealedVerifier, accountId: accountId ?? null, createdAt: now(db) });
}

/** Takes a connect request out, so that it serves once; undefined where there is none or it is older than an hour. */
export async function takeConnectRequest(
  db: Database,
  state: string,
): Promise<{ site: string; verifier: string; accountId: string | undefined } | undefined> {
  const row = await db('connectRequests')
    .where({ state })
    .where('createdAt', '>=', inSeconds(db, -REQUEST_KEPT_SECONDS))
    .first();
  const taken = await db('connectRequests').where({ state }).delete();
  if (!row || taken === 0) return undefined;
  return { site: row.site, verifier: unseal(row.sealedVerifier), accountId: row.accountId ?? undefined };
}

/** Forgets sign-ins that were never ended and can be ended no more. */
export async function forgetOldConnectRequests(db: Database): Promise<void> {
  await db('connectRequests').where('createdAt', '<', inSeconds(db, -REQUEST_KEPT_SECONDS)).delete();
}
