import type { Knex } from 'knex';
import type { Database } from './database';

/** What holds a claim on a row: the table and the worker's name. */
export interface Claim {
  table: 'drops' | 'cuts' | 'measurements' | 'pictureHabits';
  id: string;
  /** The row's state when it was claimed; a claim ends when somebody moves the row on. */
  state: string;
  owner: string;
}

/** The claim is no longer this worker's, or the row has been moved on. */
export class ClaimLost extends Error {
  override name = 'ClaimLost';
}

const free = (now: Date) => (query: Knex.QueryBuilder) => query.whereNull('leaseUntil').orWhere('leaseUntil', '<', now);

/**
 * Claims the row that has waited longest, or undefined where none is due. Rows that another worker is claiming at this
 * moment are skipped, not waited for.
 */
export async function claimNext(
  db: Database,
  table: Claim['table'],
  states: readonly string[],
  owner: string,
  leaseSeconds: number,
): Promise<Claim | undefined> {
  return db.transaction(async (trx) => {
    const now = new Date();
    const row = await trx(table)
      .select<{ id: string; state: string }[]>('id', 'state')
      .whereIn('state', [...states])
      .where('nextTryAt', '<=', now)
      .where(free(now))
      .orderBy('nextTryAt')
      .limit(1)
      .forUpdate()
      .skipLocked()
      .then((rows) => rows[0]);
    if (!row) return undefined;
    await trx(table)
      .where({ id: row.id })
      .update({ leaseOwner: owner, leaseUntil: new Date(now.getTime() + leaseSeconds * 1000) });
    return { table, id: row.id, state: row.state, owner };
  });
}

/** The rows that a claim may write to: its own, and only while it holds. */
export function claimed(db: Database, claim: Claim): Knex.QueryBuilder {
  return db(claim.table).where({ id: claim.id, leaseOwner: claim.owner, state: claim.state });
}

/** Lengthens a claim. @throws ClaimLost */
export async function beatClaim(db: Database, claim: Claim, leaseSeconds: number): Promise<void> {
  const leaseUntil = new Date(Date.now() + leaseSeconds * 1000);
  if ((await claimed(db, claim).update({ leaseUntil })) === 0) throw new ClaimLost(`${claim.table} ${claim.id}`);
}

/** Gives a row back, whoever has moved it on meanwhile. */
export async function releaseClaim(db: Database, claim: Claim): Promise<void> {
  await db(claim.table).where({ id: claim.id, leaseOwner: claim.owner }).update({ leaseOwner: null, leaseUntil: null });
}

/** Lets a row rest until `at`, with one more try counted. */
export async function postponeClaim(db: Database, claim: Claim, at: Date): Promise<void> {
  await claimed(db, claim).update({ nextTryAt: at, leaseOwner: null, leaseUntil: null }).increment('attempts', 1);
}

/** How often a row was tried in vain. */
export async function triesOf(db: Database, { table, id }: Claim): Promise<number> {
  const row: { attempts: number } | undefined = await db(table).where({ id }).first('attempts');
  return row?.attempts ?? 0;
}
