import type { Database } from '@/store/database';
import type { Job, JobProgress } from '@/store/queue/jobs';

/** What a job has to work with. */
export interface JobContext {
  job: Job;
  /** Aborts where the job was taken back, or is another worker's now. */
  signal: AbortSignal;
  /** Tells how far it is; said often, it is kept now and then. */
  tell(progress: JobProgress): void;
}

/** How a job ends that has gone well: with what is written in one transaction with its end, or for now, so many seconds. */
export interface JobEnd {
  again?: number;
  /** Why it is not done yet, where that is worth saying. */
  trouble?: string;
  write?: (trx: Database) => Promise<void>;
}

/** One kind of job. It may be run again after a crash at any point. */
export interface JobWork {
  run(context: JobContext): Promise<JobEnd>;
  /** Of work that comes again from time to time: how soon. It is never set aside, however often it has failed. */
  everySeconds?: number;
  /** What is written where it is set aside, in one transaction with that. */
  setAside?(trx: Database, job: Job, trouble: string): Promise<void>;
  /** The video whose pages show what comes of it. */
  videoOf?(db: Database, job: Job): Promise<string | undefined>;
}
