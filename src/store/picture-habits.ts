import { type Claim, claimed } from './claims';
import type { Database } from './database';

/**
 * Asks for the pictures that layers give videos to be made, or made again. A row has its video's id; what is being made
 * when it is asked for once more is made anew afterwards.
 */
export async function askForPicture(db: Database, videoIds: readonly string[]): Promise<void> {
  if (videoIds.length === 0) return;
  const asked = { state: 'waiting', nextTryAt: new Date(), leaseOwner: null, leaseUntil: null, attempts: 0 };
  await db('pictureHabits')
    .insert(videoIds.map((id) => ({ id, ...asked })))
    .onConflict('id')
    .merge(['state', 'nextTryAt', 'leaseOwner', 'leaseUntil', 'attempts']);
}

/** Notes that a picture is made. Where it was asked for anew meanwhile, the claim is gone and nothing is noted. */
export async function endPicture(db: Database, claim: Claim): Promise<void> {
  await claimed(db, claim).update({ state: 'done', leaseOwner: null, leaseUntil: null });
}
