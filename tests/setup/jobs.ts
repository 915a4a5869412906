import { database } from '@/store/database';
import { claimJobs, type Job, type JobKind, jobsOf } from '@/store/queue/jobs';
import { runJob } from '@/worker/run-job';

/** One job, as it stands. */
export async function jobOn(kind: JobKind, subject: string): Promise<Job> {
  const job = (await jobsOf(database(), kind, [subject])).get(subject);
  if (!job) throw new Error(`There is no ${kind} of ${subject}`);
  return job;
}

/** Does one job now, as a worker would, before all others of its kind; how it stands afterwards is returned. */
export async function workOn(kind: JobKind, subject: string): Promise<Job> {
  const due = { priority: 100, nextTryAt: new Date(0), leaseOwner: null, leaseUntil: null };
  await database()('jobs').where({ kind, subject }).update(due);
  const [claimed] = await claimJobs([kind], 'test', 30, 1);
  if (claimed?.job.subject !== subject) throw new Error(`The ${kind} of ${subject} is not to be had`);
  await runJob(claimed.claim, claimed.job);
  return jobOn(kind, subject);
}

/** Does every job of a kind that waits. */
export async function workOnAll(kind: JobKind): Promise<void> {
  for (;;) {
    const claims = await claimJobs([kind], 'test', 30, 10);
    if (claims.length === 0) return;
    for (const { claim, job } of claims) await runJob(claim, job);
  }
}
