import type { Database } from '@/store/database';
import type { Job } from '@/store/queue/jobs';
import { cutById } from '@/store/record/cuts';

/** The video of a job whose subject is a cut. */
export async function videoOfCut(db: Database, { subject }: Job): Promise<string | undefined> {
  return (await cutById(db, subject))?.videoId;
}
