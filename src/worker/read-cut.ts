import { createHash } from 'node:crypto';
import { pipeline } from 'node:stream/promises';
import { takeIntoUse } from '@/desk/bring-cut';
import { log } from '@/desk/log';
import { readFacts, UnusableCut } from '@/media/facts';
import { type Claim, ClaimLost, releaseClaim } from '@/store/claims';
import { type Cut, cutById, endReading } from '@/store/cuts';
import { database, transaction } from '@/store/database';
import { hastenDrops } from '@/store/drops';
import { announce } from '@/store/feed';
import { files } from '@/store/files/folder';
import { askForMeasures } from '@/store/measurements';
import { askForPicture } from '@/store/picture-habits';
import { keepClaim } from './keep-claim';
import { putOff } from './put-off';

/** Reads the facts and the digest of a cut that has arrived, or why it cannot be used. */
export async function readCut(claim: Claim): Promise<void> {
  const db = database();
  const kept = keepClaim(claim);
  let cut: Cut | undefined;
  try {
    cut = await cutById(db, claim.id);
    if (!cut) return;
    const { id, videoId, fileKey, size } = cut;
    const facts = await readFacts(files().localPath(fileKey), size);
    const hash = createHash('sha256');
    await pipeline(files().open(fileKey), hash);
    const digest = hash.digest('hex');
    // All or nothing: a cut that is ready is also measured, has its picture made, and is in use.
    await transaction(async (trx) => {
      await endReading(trx, claim, { facts, digest });
      await askForMeasures(trx, id);
      await askForPicture(trx, [videoId]);
      await takeIntoUse(trx, { id, videoId });
    });
    log.info({ cut: id, container: facts.container, codec: facts.video.codec }, 'cut read');
  } catch (error) {
    if (error instanceof ClaimLost) return;
    if (!(error instanceof UnusableCut)) return await putOff(claim, error);
    await endReading(db, claim, { refusal: error.message });
    log.warn({ cut: claim.id, why: error.message }, 'cut refused');
  } finally {
    kept.letGo();
    await releaseClaim(db, claim);
    if (cut) {
      await hastenDrops(db, { videoId: cut.videoId });
      await announce(db, 'video', cut.videoId);
    }
  }
}
