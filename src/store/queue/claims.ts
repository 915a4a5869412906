import type { Knex } from 'knex';
import { inSeconds, now } from '@/store/clock';
import { type Database, database, throughLocks } from '@/store/database';

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
 * Claims rows that are due, in one statement however many there are. Each claim has an owner of its own, so that it gives back
 * nothing but itself.
 *
 * What is due is read without a lock; of those rows the ones are claimed that are still as they were read, and still free.
 * @param choose the rows to claim, of those that are due
 * @param worker the name of the worker, beginning with that of its machine
 * @param leaseSeconds how long a claim holds without a heartbeat
 * @param alongside fields that are set with the claim
 */
export async function claimRows<Row extends { id: string; state: string }>(
  table: Claim['table'],
  choose: (db: Database) => Promise<Row[]>,
  worker: string,
  leaseSeconds: number,
  alongside: (db: Database) => Record<string, unknown> = () => ({}),
): Promise<(Claim & { row: Row })[]> {
  const db = database();
  const chosen = await choose(db);
  if (chosen.length === 0) return [];
  claimsMade += 1;
  const name = `${worker}/${claimsMade.toString(36)}`;
  const claims = chosen.map((row, index) => ({
    ...{ table, id: row.id, state: row.state, row },
    owner: `${name}.${index + 1}`,
  }));
  const ids = claims.map(({ id }) => id);
  const states = [...new Set(claims.map(({ state }) => state))];
  const asRead = claims.map(({ id, state }) => [id, state]);
  const count = await throughLocks(() =>
    dueRows(db, table, states)
      .whereIn('id', ids)
      .whereIn(['id', 'state'], asRead)
      .update({
        leaseOwner: db.raw(`CONCAT(?, FIELD(id, ${ids.map(() => '?').join(', ')}))`, [`${name}.`, ...ids]),
        leaseUntil: inSeconds(db, leaseSeconds),
        ...alongside(db),
      }),
  );
  if (count === claims.length) return claims;
  const owners = claims.map(({ owner }) => owner);
  const ours: string[] =
    count === 0 ? [] : await db(table).whereIn('id', ids).whereIn('leaseOwner', owners).pluck('id');
  return claims.filter(({ id }) => ours.includes(id));
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
