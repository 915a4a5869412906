import { log } from '@/desk/log';
import { makeHabitPicture } from '@/desk/pictures';
import { ProgramError } from '@/media/program';
import { type Claim, releaseClaim } from '@/store/claims';
import { database } from '@/store/database';
import { endPicture } from '@/store/picture-habits';
import { keepClaim } from './keep-claim';

/** Makes the picture that the layers ask for; the row has its video's id. */
export async function makePicture(claim: Claim): Promise<void> {
  const kept = keepClaim(claim);
  try {
    await makeHabitPicture(claim.id);
  } catch (error) {
    if (!(error instanceof ProgramError)) throw error;
    log.warn({ video: claim.id, why: error.message }, 'no picture could be made');
  } finally {
    kept.letGo();
    await endPicture(database(), claim);
    await releaseClaim(database(), claim);
  }
}
