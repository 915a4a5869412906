import { log } from '@/desk/log';
import { type Claim, postponeClaim, triesOf } from '@/store/claims';
import { database } from '@/store/database';

const LONGEST_SECONDS = 300;

/**
 * Puts a row off that could not be worked for a reason that is not its own, or that nobody knows: further each time, so that
 * it neither stands still for good nor starves what is behind it.
 */
export async function putOff(claim: Claim, error: unknown): Promise<void> {
  const db = database();
  const seconds = Math.min(LONGEST_SECONDS, 2 ** (await triesOf(db, claim)));
  log.error({ table: claim.table, row: claim.id, seconds, why: (error as Error).message }, 'put off');
  await postponeClaim(db, claim, new Date(Date.now() + seconds * 1000));
}
