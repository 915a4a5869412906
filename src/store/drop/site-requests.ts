import { inSeconds, now } from '@/store/clock';
import type { Database } from '@/store/database';
import { deleteInSteps } from '@/store/in-steps';

/** A request that was made to a site for a drop, in short. */
export interface SiteRequest {
  method: string;
  /** What it was for, in a few words. */
  purpose: string;
  /** The HTTP status of the answer; 0 where nothing answered. */
  status: number;
  /** From asking to the answer. */
  milliseconds: number;
}

/** The same as it is kept: `times` alike that followed each other, the last of them at `at`. */
export interface KeptRequest extends SiteRequest {
  id: number;
  at: Date;
  times: number;
}

const KEPT_OF_DROP = 400;

const alike = (a: SiteRequest, b: SiteRequest): boolean =>
  a.method === b.method && a.purpose === b.purpose && a.status === b.status;

/** Keeps requests that were made for a drop, in the order in which they were made. */
export async function keepRequests(db: Database, dropId: string, requests: readonly SiteRequest[]): Promise<void> {
  const rows: (SiteRequest & { times: number })[] = [];
  for (const request of requests) {
    const last = rows.at(-1);
    if (last && alike(last, request)) {
      last.times += 1;
      last.milliseconds = request.milliseconds;
    } else rows.push({ ...request, times: 1 });
  }
  const [first] = rows;
  if (!first) return;
  const last: KeptRequest | undefined = await db('siteRequests').where({ dropId }).orderBy('id', 'desc').first();
  if (last && alike(last, first)) {
    rows.shift();
    const { milliseconds } = first;
    await db('siteRequests')
      .where({ id: last.id })
      .update({ at: now(db), milliseconds, times: last.times + first.times });
  }
  if (rows.length === 0) return;
  await db('siteRequests').insert(rows.map((row) => ({ dropId, at: now(db), ...row })));
  const oldest: { id: number } | undefined = await db('siteRequests')
    .where({ dropId })
    .orderBy('id', 'desc')
    .offset(KEPT_OF_DROP)
    .first('id');
  if (oldest) await db('siteRequests').where({ dropId }).where('id', '<=', oldest.id).delete();
}

/** What a site was asked for a drop, the newest first. */
export async function requestsOf(db: Database, dropId: string): Promise<KeptRequest[]> {
  return db('siteRequests')
    .where({ dropId })
    .orderBy('id', 'desc')
    .select('id', 'at', 'method', 'purpose', 'status', 'milliseconds', 'times');
}

const KEPT_SECONDS = 90 * 24 * 3600;

/** Forgets requests of some months ago. */
export async function forgetOldRequests(db: Database): Promise<void> {
  await deleteInSteps(() => db('siteRequests').where('at', '<', inSeconds(db, -KEPT_SECONDS)));
}
