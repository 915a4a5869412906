import { createHash } from 'node:crypto';
import { pipeline } from 'node:stream/promises';
import { setTimeout as pause } from 'node:timers/promises';
import { log } from '@/desk/log';
import { readFacts, UnusableCut } from '@/media/facts';
import { beatClaim, type Claim, ClaimLost, releaseClaim } from '@/store/claims';
import { cutById, endReading } from '@/store/cuts';
import { database } from '@/store/database';
import { hastenDrops } from '@/store/drops';
import { announce } from '@/store/feed';
import { files } from '@/store/files/folder';
import { settings } from '@/store/settings';

/** Reads the facts and the digest of a cut that has arrived, or why it cannot be used. */
export async function readCut(claim: Claim): Promise<void> {
  const db = database();
  const cut = await cutById(db, claim.id);
  const stop = new AbortController();
  void beat(claim, stop.signal).catch(() => undefined);
  try {
    if (!cut) return;
    const facts = await readFacts(files().localPath(cut.fileKey), cut.size);
    const hash = createHash('sha256');
    await pipeline(files().open(cut.fileKey), hash);
    await endReading(db, claim, { facts, digest: hash.digest('hex') });
    log.info({ cut: cut.id, container: facts.container, codec: facts.video.codec }, 'cut read');
  } catch (error) {
    if (error instanceof ClaimLost) return;
    if (!(error instanceof UnusableCut)) throw error;
    await endReading(db, claim, { refusal: error.message });
    log.warn({ cut: claim.id, why: error.message }, 'cut refused');
  } finally {
    stop.abort();
    await releaseClaim(db, claim);
    if (cut) {
      await hastenDrops(db, { videoId: cut.videoId });
      await announce(db, 'video', cut.videoId);
    }
  }
}

async function beat(claim: Claim, signal: AbortSignal): Promise<void> {
  for (;;) {
    await pause((settings().leaseSeconds * 1000) / 3, undefined, { signal });
    await beatClaim(database(), claim, settings().leaseSeconds);
  }
}
