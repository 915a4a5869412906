import { doMany, giveUpMany } from '@/desk/many/do-many';
import type { JobWork } from './job-work';

/** Does what a person asked for with many videos; the subject is the act. */
export const manyWork: JobWork = {
  async run({ job, signal, tell }) {
    await doMany(job.subject, (done) => tell({ says: `${done} done` }), signal);
    return {};
  },
  setAside: (trx, { subject }, trouble) => giveUpMany(trx, subject, trouble),
};
