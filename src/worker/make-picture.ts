import { log } from '@/desk/log';
import { makeHabitPicture } from '@/desk/pictures';
import { ProgramError } from '@/media/program';
import { type Claim, postponeClaim, releaseClaim, triesOf } from '@/store/claims';
import { database } from '@/store/database';
import { endPicture } from '@/store/picture-habits';
import { keepClaim } from './keep-claim';

const MOST_TRIES = 6;

/** Makes the picture that the layers ask for; the row has its video's id. What went wrong by chance is tried again. */
export async function makePicture(claim: Claim): Promise<void> {
  const db = database();
  const kept = keepClaim(claim);
  try {
    await makeHabitPicture(claim.id);
    await endPicture(db, claim);
  } catch (error) {
    const why = (error as Error).message;
    const tries = await triesOf(db, claim);
    if (error instanceof ProgramError || tries >= MOST_TRIES) {
      log.warn({ video: claim.id, why }, 'no picture could be made');
      await endPicture(db, claim);
    } else {
      log.warn({ video: claim.id, why }, 'the picture is tried again');
      await postponeClaim(db, claim, new Date(Date.now() + 1000 * 2 ** tries));
    }
  } finally {
    kept.letGo();
    await releaseClaim(db, claim);
  }
}
