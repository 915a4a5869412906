import { doMany, giveUpMany } from '@/desk/many/do-many';
import type { JobWork } from './job-work';

/** So soon it is looked whether an act about the same videos has ended. */
const LOOK_SECONDS = 1;

/** Does what a person asked for with many videos; the subject is the act. */
export const manyWork: JobWork = {
  async run({ job, signal, tell }) {
    const over = await doMany(job.subject, (done) => tell({ says: `${done} done` }), signal);
    return over ? {} : { again: LOOK_SECONDS };
  },
  setAside: (trx, { subject }, trouble) => giveUpMany(trx, subject, trouble),
};
