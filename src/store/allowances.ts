import type { Allowance } from '@/core/work';
import { inSeconds, now } from './clock';
import type { Database } from './database';

/** The allowances that hold for an account now. */
export async function allowancesOf(db: Database, accountId: string): Promise<Allowance[]> {
  const rows: { policy: string; remaining: number; quota: number | null; microseconds: number }[] = await db(
    'allowances',
  )
    .where({ accountId })
    .where('resetsAt', '>', now(db))
    .select('policy', 'remaining', 'quota')
    .select({ microseconds: db.raw('TIMESTAMPDIFF(MICROSECOND, UTC_TIMESTAMP(3), ??)', ['resetsAt']) });
  return rows.map(({ policy, remaining, quota, microseconds }) => ({
    policy,
    remaining,
    quota: quota ?? undefined,
    seconds: Number(microseconds) / 1e6,
  }));
}

/** Counts one request ahead: others see that it is made, before the site has answered it. */
export async function countRequest(db: Database, accountId: string): Promise<void> {
  await db('allowances').where({ accountId }).where('resetsAt', '>', now(db)).decrement('remaining', 1);
}

/** Keeps what a site has told of an account's allowances. */
export async function keepAllowances(db: Database, accountId: string, told: readonly Allowance[]): Promise<void> {
  if (told.length === 0) return;
  const rows = told.map(({ policy, quota, remaining, seconds }) => ({
    accountId,
    policy,
    quota: quota ?? null,
    remaining,
    resetsAt: inSeconds(db, seconds),
  }));
  await db('allowances').insert(rows).onConflict(['accountId', 'policy']).merge();
}
