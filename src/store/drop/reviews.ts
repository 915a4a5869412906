import { now } from '@/store/clock';
import type { Database } from '@/store/database';

/** One time that a drop was handed in for review. */
export interface Review {
  id: number;
  dropId: string;
  handedInAt: Date;
  /** Undefined while it goes on. */
  endedAt: Date | undefined;
  approved: boolean | undefined;
  reason: string | undefined;
  remedy: string | undefined;
  /** The words that were handed in, as JSON. */
  given: string | undefined;
}

interface Row {
  id: number;
  dropId: string;
  handedInAt: Date;
  endedAt: Date | null;
  approved: number | null;
  reason: string | null;
  remedy: string | null;
  given: string | null;
}

const columns = ['id', 'dropId', 'handedInAt', 'endedAt', 'approved', 'reason', 'remedy', 'given'];

const fromRow = (row: Row): Review => ({
  id: row.id,
  dropId: row.dropId,
  handedInAt: row.handedInAt,
  endedAt: row.endedAt ?? undefined,
  approved: row.approved === null ? undefined : row.approved === 1,
  reason: row.reason ?? undefined,
  remedy: row.remedy ?? undefined,
  given: row.given ?? undefined,
});

/** Every time that drops were handed in, the oldest first. */
export async function reviewsOf(db: Database, dropIds: readonly string[]): Promise<Review[]> {
  const rows: Row[] = await db('reviews')
    .select(columns)
    .whereIn('dropId', [...dropIds])
    .orderBy('id');
  return rows.map(fromRow);
}

/**
 * Notes that a drop was handed in for review with these words; nothing where that is known.
 * @param since when it came to wait for the answer: one that is noted since then is the same
 */
export async function noteHandedIn(
  db: Database,
  drop: { id: string; since: Date },
  site: string,
  given: string | undefined,
): Promise<void> {
  const known = await db('reviews')
    .where({ dropId: drop.id })
    .where((query) => query.whereNull('endedAt').orWhere('handedInAt', '>=', drop.since))
    .first('id');
  if (!known) await db('reviews').insert({ dropId: drop.id, site, handedInAt: now(db), given: given ?? null });
}

/** Notes how the review of a drop has ended; nothing where none is open. */
export async function noteReviewed(
  db: Database,
  dropId: string,
  ended: { approved: boolean; reason?: string; remedy?: string },
): Promise<void> {
  const { approved, reason, remedy } = ended;
  await db('reviews')
    .where({ dropId })
    .whereNull('endedAt')
    .update({
      ...{ endedAt: now(db), approved },
      ...{ reason: reason?.slice(0, 1000) ?? null, remedy: remedy?.slice(0, 1000) ?? null },
    });
}

const LOOKED_AT = 50;

/** How long the last reviews of a site took, in seconds. */
export async function reviewSeconds(db: Database, site: string): Promise<number[]> {
  const rows: { seconds: number }[] = await db('reviews')
    .where({ site })
    .whereNotNull('endedAt')
    .orderBy('endedAt', 'desc')
    .limit(LOOKED_AT)
    .select({ seconds: db.raw('TIMESTAMPDIFF(SECOND, handed_in_at, ended_at)') });
  return rows.map(({ seconds }) => Number(seconds));
}
