import { cutById } from '@/store/cuts';
import { database } from '@/store/database';
import { type JobKind, jobsSetAside, retryJobs } from '@/store/jobs';
import { renditionById } from '@/store/renditions';
import { videoById } from '@/store/videos';

const WORK: Record<JobKind, string> = {
  read: 'Reading a file',
  measure: 'Measuring sound and shots',
  encode: 'Making a file',
  picture: 'Making a picture',
  many: 'Changing many videos',
  playlists: 'Reading playlists',
  inbox: 'Looking into the inbox',
  tidy: 'Tidying up',
};

/** A piece of background work that was set aside: what it is, what it is done for, and what it said. */
export interface JobView {
  work: string;
  of: string;
  trouble: string;
}

/** The background work that was set aside, newest first. */
export async function lookAtJobs(): Promise<JobView[]> {
  const db = database();
  const jobs = await jobsSetAside(db);
  return Promise.all(
    jobs.map(async ({ kind, subject, trouble = '' }) => {
      const cutId = kind === 'encode' ? (await renditionById(db, subject))?.cutId : subject;
      const of =
        kind === 'picture' ? (await videoById(db, subject))?.title : (await cutById(db, cutId ?? ''))?.fileName;
      return { work: WORK[kind], of: of ?? '', trouble };
    }),
  );
}

/** Has everything tried again that was set aside. How much that is, is returned. */
export async function tryJobsAgain(): Promise<number> {
  return retryJobs(database(), 'all');
}
