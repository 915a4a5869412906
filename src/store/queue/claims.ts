import type { Knex } from 'knex';
import { inSeconds, now } from '@/store/clock';
import { type Database, database, transaction } from '@/store/database';

/** What holds a claim on a row: the table and the name of this one piece of work. */
export interface Claim {
  table: 'drops' | 'jobs';
  id: string;
  /** The row's state when it was claimed; a claim ends when somebody moves the row on. */
  state: string;
  owner: string;
}

/** The claim is no longer this worker's, or the row has been moved on. */
export class ClaimLost extends Error {
  override name = 'ClaimLost';
}

/** The rows of a table that are due and in nobody's hands, by the database's clock. */
export function dueRows(db: Database, table: Claim['table'], states: readonly string[]): Knex.QueryBuilder {
  return db(table)
    .whereIn('state', [...states])
    .where('nextTryAt', '<=', now(db))
    .where((query) => query.whereNull('leaseUntil').orWhere('leaseUntil', '<', now(db)));
}

let claimsMade = 0;

/**
 * Claims rows that are due. Each claim has an owner of its own, so that it gives back nothing but itself.
 *
 * What is due is read without a lock; then just those rows are locked that are to be claimed, and looked at once more, since
 * a locking read of a range locks all that it passes. Rows that another worker is claiming are skipped, not waited for.
 * @param choose the rows to claim, of those that are due
 * @param worker the name of the worker, beginning with that of its machine
 * @param leaseSeconds how long a claim holds without a heartbeat
 * @param alongside fields that are set with the claim
 */
export async function claimRows<Row extends { id: string; state: string }>(
  table: Claim['table'],
  choose: (trx: Database) => Promise<Row[]>,
  worker: string,
  leaseSeconds: number,
  alongside: (trx: Database) => Record<string, unknown> = () => ({}),
): Promise<(Claim & { row: Row })[]> {
  const chosen = await choose(database());
  if (chosen.length === 0) return [];
  return transaction(async (trx) => {
    const states = [...new Set(chosen.map(({ state }) => state))];
    const free: { id: string; state: string }[] = await dueRows(trx, table, states)
      .whereIn('id', [...chosen.map(({ id }) => id)])
      .select('id', 'state')
      .forUpdate()
      .skipLocked();
    const claims = chosen
      .filter((row) => free.some(({ id, state }) => id === row.id && state === row.state))
      .map((row) => {
        claimsMade += 1;
        return { table, id: row.id, state: row.state, owner: `${worker}/${claimsMade.toString(36)}`, row };
      });
    for (const { id, owner } of claims) {
      const lease = { leaseOwner: owner, leaseUntil: inSeconds(trx, leaseSeconds) };
      await trx(table)
        .where({ id })
        .update({ ...lease, ...alongside(trx) });
    }
    return claims;
  });
}

/** The rows that a claim may write to: its own, and only while it holds. */
export function claimed(db: Database, claim: Claim): Knex.QueryBuilder {
  return db(claim.table).where({ id: claim.id, leaseOwner: claim.owner, state: claim.state });
}

/** Lengthens a claim. @throws ClaimLost */
export async function beatClaim(db: Database, claim: Claim, leaseSeconds: number): Promise<void> {
  const leaseUntil = inSeconds(db, leaseSeconds);
  if ((await claimed(db, claim).update({ leaseUntil })) === 0) throw new ClaimLost(`${claim.table} ${claim.id}`);
}

/** Gives a row back, whoever has moved it on meanwhile. */
export async function releaseClaim(db: Database, claim: Claim): Promise<void> {
  await db(claim.table).where({ id: claim.id, leaseOwner: claim.owner }).update({ leaseOwner: null, leaseUntil: null });
}
