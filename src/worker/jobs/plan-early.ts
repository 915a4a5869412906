import { startEarly } from '@/desk/drop/early';
import type { JobWork } from './job-work';

/** Has files of a video go up before its words, to the channels whose habit that is. */
export const planEarly: JobWork = {
  run: async ({ job }) => ({ write: (trx) => startEarly(trx, job.subject) }),
  videoOf: async (_, { subject }) => subject,
};
