import { type Allowance, SAME_SPAN_SECONDS } from '@/core/work';
import { inSeconds, now } from '@/store/clock';
import type { Database } from '@/store/database';

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

/**
 * Keeps what a site has told of an account's allowances. Answers are not always heard in the order in which they were given,
 * and other requests are on their way: within one span the least that is left counts.
 */
export async function keepAllowances(db: Database, accountId: string, told: readonly Allowance[]): Promise<void> {
  for (const { policy, quota, remaining, seconds } of told) {
    const resetsAt = inSeconds(db, seconds);
    const span = 'VALUES(??) > ?? + INTERVAL ? SECOND OR ?? <= UTC_TIMESTAMP(3)';
    const isNew = db.raw(span, ['resetsAt', 'resetsAt', SAME_SPAN_SECONDS, 'resetsAt']);
    await db('allowances')
      .insert({ accountId, policy, quota: quota ?? null, remaining, resetsAt })
      .onConflict(['accountId', 'policy'])
      .merge({
        quota: quota ?? null,
        // Before `resetsAt`: the database sets one after the other.
        remaining: db.raw('IF(?, VALUES(??), LEAST(??, VALUES(??)))', [isNew, ...Array<string>(3).fill('remaining')]),
        resetsAt: db.raw('IF(?, VALUES(??), ??)', [isNew, 'resetsAt', 'resetsAt']),
      });
  }
}
