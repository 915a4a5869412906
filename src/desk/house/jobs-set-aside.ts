import { database } from '@/store/database';
import { earlyUploadById } from '@/store/drop/early-uploads';
import { renditionById } from '@/store/files/renditions';
import { type JobKind, jobsSetAside, retryJobs } from '@/store/queue/jobs';
import { cutById } from '@/store/record/cuts';
import { videoById } from '@/store/record/videos';

const WORK: Record<JobKind, string> = {
  read: 'Reading a file',
  measure: 'Measuring sound and shots',
  encode: 'Making a file',
  early: 'Uploading a file early',
  give: 'Sending changes to a site',
  'plan early': 'Seeing which files go up early',
  picture: 'Making a picture',
  many: 'Changing many videos',
  playlists: 'Reading playlists',
  'read live': 'Reading live videos again',
  'watch held': 'Looking at what is held',
  tell: 'Sending notices',
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
      const made = kind === 'encode' ? renditionById : kind === 'early' ? earlyUploadById : undefined;
      const cutId = made ? (await made(db, subject))?.cutId : subject;
      const of =
        kind === 'picture' || kind === 'plan early'
          ? (await videoById(db, subject))?.title
          : (await cutById(db, cutId ?? ''))?.fileName;
      return { work: WORK[kind], of: of ?? '', trouble };
    }),
  );
}

/** Has everything tried again that was set aside. How much that is, is returned. */
export async function tryJobsAgain(): Promise<number> {
  return retryJobs(database(), 'all');
}
