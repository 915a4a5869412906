import type { Tokens } from '@/core/permission/tokens';
import type { Database } from './database';
import { newId } from './ids';
import { seal, unseal } from './vault';

export type AccountState = 'connected' | 'taken back' | 'disconnected';

export interface Account {
  id: string;
  site: string;
  siteAccountId: string;
  name: string;
  scope: string;
  state: AccountState;
  tokens: Tokens | undefined;
}

interface Row extends Omit<Account, 'tokens'> {
  sealedTokens: string | null;
}

const columns = ['id', 'site', 'siteAccountId', 'name', 'scope', 'state', 'sealedTokens'];

function fromRow({ sealedTokens, ...rest }: Row): Account {
  return { ...rest, tokens: sealedTokens === null ? undefined : (JSON.parse(unseal(sealedTokens)) as Tokens) };
}

/** Keeps an account with its tokens, or gives an account that is known already its new ones. Its id is returned. */
export async function keepAccount(
  db: Database,
  account: Pick<Account, 'site' | 'siteAccountId' | 'name' | 'scope'>,
  tokens: Tokens,
): Promise<string> {
  const now = new Date();
  const sealedTokens = seal(JSON.stringify(tokens));
  await db('accounts')
    .insert({ id: newId(), ...account, sealedTokens, state: 'connected', createdAt: now, updatedAt: now })
    .onConflict(['site', 'siteAccountId'])
    .merge(['name', 'scope', 'sealedTokens', 'state', 'updatedAt']);
  const row = await db('accounts').where({ site: account.site, siteAccountId: account.siteAccountId }).first('id');
  return row.id;
}

/** One account; with `lock`, no other process reads or renews its tokens until the transaction ends. */
export async function accountById(db: Database, id: string, lock = false): Promise<Account | undefined> {
  const query = db('accounts').where({ id }).first(columns);
  const row: Row | undefined = await (lock ? query.forUpdate() : query);
  return row && fromRow(row);
}

/** Every account, in the order in which they were connected. */
export async function allAccounts(db: Database): Promise<Omit<Account, 'tokens'>[]> {
  return db('accounts')
    .select(columns.filter((column) => column !== 'sealedTokens'))
    .orderBy('id');
}

/** Keeps renewed tokens. */
export async function keepTokens(db: Database, id: string, tokens: Tokens): Promise<void> {
  await db('accounts')
    .where({ id })
    .update({ sealedTokens: seal(JSON.stringify(tokens)), state: 'connected', updatedAt: new Date() });
}

/** Forgets the tokens of an account that may no longer be spoken for, and says why. */
export async function endAccount(db: Database, id: string, state: Exclude<AccountState, 'connected'>): Promise<void> {
  await db('accounts').where({ id }).update({ sealedTokens: null, state, updatedAt: new Date() });
}

/** Keeps what a browser must bring back from a site's consent page: the state, and the PKCE verifier sealed. */
export async function keepConnectRequest(db: Database, state: string, site: string, verifier: string): Promise<void> {
  await db('connectRequests').insert({ state, site, sealedVerifier: seal(verifier), createdAt: new Date() });
}

/** Takes a connect request out, so that it serves once; undefined where there is none or it is older than an hour. */
export async function takeConnectRequest(
  db: Database,
  state: string,
): Promise<{ site: string; verifier: string } | undefined> {
  const row = await db('connectRequests').where({ state }).first();
  const taken = await db('connectRequests').where({ state }).delete();
  if (!row || taken === 0 || row.createdAt.getTime() < Date.now() - 3600 * 1000) return undefined;
  return { site: row.site, verifier: unseal(row.sealedVerifier) };
}
