import { log } from '@/desk/log';
import { makeHabitPicture } from '@/desk/pictures';
import { ProgramError } from '@/media/program';
import { type Claim, releaseClaim } from '@/store/claims';
import { database } from '@/store/database';
import { endPicture } from '@/store/picture-habits';
import { keepClaim } from './keep-claim';
import { putOff } from './put-off';

/** Makes the picture that the layers ask for; the row has its video's id. What went wrong by chance is tried again. */
export async function makePicture(claim: Claim): Promise<void> {
  const db = database();
  const kept = keepClaim(claim);
  try {
    await makeHabitPicture(claim.id);
    await endPicture(db, claim);
  } catch (error) {
    if (!(error instanceof ProgramError)) return await putOff(claim, error);
    log.warn({ video: claim.id, why: error.message }, 'no picture could be made');
    await endPicture(db, claim);
  } finally {
    kept.letGo();
    await releaseClaim(db, claim);
  }
}
