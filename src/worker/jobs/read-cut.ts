import { createHash } from 'node:crypto';
import { pipeline } from 'node:stream/promises';
import { takeIntoUse } from '@/desk/cut/bring-cut';
import { readFacts, UnusableCut } from '@/media/facts';
import { database } from '@/store/database';
import { hastenPacking } from '@/store/drop/claims';
import { files } from '@/store/files/folder';
import { askForJobsAnew } from '@/store/queue/jobs';
import { cutById, endReading } from '@/store/record/cuts';
import { askForMeasures } from '@/store/record/measurements';
import type { JobContext, JobEnd, JobWork } from './job-work';
import { videoOfCut } from './video-of-cut';

async function digestOf(key: string, size: number, signal: AbortSignal, tell: JobContext['tell']): Promise<string> {
  const hash = createHash('sha256');
  let read = 0;
  const bytes = files().open(key);
  bytes.on('data', (chunk: Buffer) => {
    read += chunk.length;
    tell({ says: 'reading the file', fraction: read / size });
  });
  await pipeline(bytes, hash, { signal });
  return hash.digest('hex');
}

/** Reads the facts and the digest of a cut that has arrived, or why it cannot be used. */
export const readCut: JobWork = {
  async run({ job, signal, tell }): Promise<JobEnd> {
    const cut = await cutById(database(), job.subject);
    if (cut?.state !== 'reading') return {};
    const { id, videoId, fileKey, size } = cut;
    try {
      const facts = await readFacts(files().localPath(fileKey), size, signal);
      // Where it was made while the bytes came, they are not read a second time.
      const digest = cut.digest ?? (await digestOf(fileKey, size, signal, tell));
      // All or nothing: a cut that is ready is also measured, has its picture made, and is in use.
      return {
        async write(trx) {
          await endReading(trx, id, { facts, digest });
          await askForMeasures(trx, id);
          await askForJobsAnew(trx, 'picture', [videoId]);
          await askForJobsAnew(trx, 'plan early', [videoId]);
          await takeIntoUse(trx, { id, videoId });
          await hastenPacking(trx, videoId);
        },
      };
    } catch (error) {
      if (!(error instanceof UnusableCut)) throw error;
      return {
        async write(trx) {
          await endReading(trx, id, { refusal: error.message });
          await hastenPacking(trx, videoId);
        },
      };
    }
  },
  videoOf: videoOfCut,
};
