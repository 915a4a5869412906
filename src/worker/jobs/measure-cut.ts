import { measureCut as measure } from '@/media/measure';
import { ProgramError } from '@/media/program';
import { cutById } from '@/store/cuts';
import { database } from '@/store/database';
import { files } from '@/store/files/folder';
import { endMeasuring } from '@/store/measurements';
import type { JobWork } from './job-work';
import { videoOfCut } from './video-of-cut';

/** Measures sound and shots of one cut, for the ruler. */
export const measureCut: JobWork = {
  async run({ job, signal, tell }) {
    const cut = await cutById(database(), job.subject);
    if (!cut?.facts) return {};
    const { duration, video, audio } = cut.facts;
    const wanted = { duration, rate: video.rate, sound: audio !== undefined };
    const onProgress = (fraction: number) => tell({ says: 'measuring sound and shots', fraction });
    try {
      const found = await measure(files().localPath(cut.fileKey), wanted, signal, onProgress);
      return { write: (trx) => endMeasuring(trx, cut.id, { found }) };
    } catch (error) {
      if (!(error instanceof ProgramError)) throw error;
      return { write: (trx) => endMeasuring(trx, cut.id, { trouble: error.message }) };
    }
  },
  setAside: (trx, { subject }, trouble) => endMeasuring(trx, subject, { trouble }),
  videoOf: videoOfCut,
};
