import { readFacts, UnusableCut } from '@/media/facts';
import { measureCut as measure } from '@/media/pass/measure-cut';
import { ProgramError } from '@/media/program';
import { database } from '@/store/database';
import { files } from '@/store/files/folder';
import { cutById, keepFacts } from '@/store/record/cuts';
import { endMeasuring, measuresOfSame } from '@/store/record/measurements';
import type { JobWork } from './job-work';
import { timeLeft } from './time-left';
import { videoOfCut } from './video-of-cut';

/** Measures sound and shots of one cut, for the ruler. */
export const measureCut: JobWork = {
  async run({ job, signal, tell }) {
    const cut = await cutById(database(), job.subject);
    if (!cut?.facts || cut.goneAt) return {};
    const path = files().localPath(cut.fileKey);
    const left = timeLeft();
    const onProgress = (fraction: number) =>
      tell({ says: 'looking the file over', fraction, secondsLeft: left(fraction) });
    try {
      // The same bytes sound and look the same: a file that is here twice is looked over once.
      const known = cut.digest && cut.facts.more ? await measuresOfSame(database(), cut.digest) : undefined;
      const found = known ?? (await measure(path, cut.facts, signal, onProgress));
      // Cuts that were read before more was asked of a file tell of it now.
      const facts = cut.facts.more ? undefined : await readFacts(path, cut.size, signal);
      return {
        async write(trx) {
          await endMeasuring(trx, cut.id, { found });
          if (facts) await keepFacts(trx, cut.id, facts);
        },
      };
    } catch (error) {
      if (!(error instanceof ProgramError || error instanceof UnusableCut)) throw error;
      return { write: (trx) => endMeasuring(trx, cut.id, { trouble: error.message }) };
    }
  },
  setAside: (trx, { subject }, trouble) => endMeasuring(trx, subject, { trouble }),
  videoOf: videoOfCut,
};
