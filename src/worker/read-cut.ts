import { createHash } from 'node:crypto';
import { pipeline } from 'node:stream/promises';
import { takeIntoUse } from '@/desk/bring-cut';
import { log } from '@/desk/log';
import { readFacts, UnusableCut } from '@/media/facts';
import { type Claim, ClaimLost, releaseClaim } from '@/store/claims';
import { cutById, endReading } from '@/store/cuts';
import { database, transaction } from '@/store/database';
import { hastenDrops } from '@/store/drops';
import { announce } from '@/store/feed';
import { files } from '@/store/files/folder';
import { askForMeasures } from '@/store/measurements';
import { askForPicture } from '@/store/picture-habits';
import { keepClaim } from './keep-claim';

/** Reads the facts and the digest of a cut that has arrived, or why it cannot be used. */
export async function readCut(claim: Claim): Promise<void> {
  const db = database();
  const cut = await cutById(db, claim.id);
  const kept = keepClaim(claim);
  try {
    if (!cut) return;
    const facts = await readFacts(files().localPath(cut.fileKey), cut.size);
    const hash = createHash('sha256');
    await pipeline(files().open(cut.fileKey), hash);
    const digest = hash.digest('hex');
    // All or nothing: a cut that is ready is also measured, has its picture made, and is in use.
    await transaction(async (trx) => {
      await endReading(trx, claim, { facts, digest });
      await askForMeasures(trx, cut.id);
      await askForPicture(trx, [cut.videoId]);
      await takeIntoUse(trx, cut);
    });
    log.info({ cut: cut.id, container: facts.container, codec: facts.video.codec }, 'cut read');
  } catch (error) {
    if (error instanceof ClaimLost) return;
    if (!(error instanceof UnusableCut)) throw error;
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
