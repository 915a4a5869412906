import { log } from '@/desk/log';
import { measureCut as measure } from '@/media/measure';
import { ProgramError } from '@/media/program';
import { type Claim, ClaimLost, releaseClaim } from '@/store/claims';
import { type Cut, cutById } from '@/store/cuts';
import { database } from '@/store/database';
import { announce } from '@/store/feed';
import { files } from '@/store/files/folder';
import { cutToMeasure, endMeasuring } from '@/store/measurements';
import { keepClaim } from './keep-claim';
import { putOff } from './put-off';

/** Measures sound and shots of one cut, for the ruler. */
export async function measureCut(claim: Claim): Promise<void> {
  const db = database();
  const kept = keepClaim(claim);
  let cut: Cut | undefined;
  try {
    cut = await cutById(db, (await cutToMeasure(db, claim.id)) ?? '');
    if (!cut?.facts) return;
    const { duration, video, audio } = cut.facts;
    const wanted = { duration, rate: video.rate, sound: audio !== undefined };
    await endMeasuring(db, claim, { found: await measure(files().localPath(cut.fileKey), wanted, kept.gone) });
    log.info({ cut: cut.id }, 'cut measured');
  } catch (error) {
    if (error instanceof ClaimLost || kept.gone.aborted) return;
    if (!(error instanceof ProgramError)) return await putOff(claim, error);
    await endMeasuring(db, claim, { trouble: error.message });
    log.warn({ cut: cut?.id, why: error.message }, 'cut not measured');
  } finally {
    kept.letGo();
    await releaseClaim(db, claim);
    if (cut) await announce(db, 'video', cut.videoId);
  }
}
