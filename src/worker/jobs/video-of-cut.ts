import { cutById } from '@/store/cuts';
import type { Database } from '@/store/database';
import type { Job } from '@/store/jobs';

/** The video of a job whose subject is a cut. */
export async function videoOfCut(db: Database, { subject }: Job): Promise<string | undefined> {
  return (await cutById(db, subject))?.videoId;
}
