import { whatFollows } from '@/core/work';
import { log } from '@/desk/log';
import { database, transaction } from '@/store/database';
import { announce } from '@/store/feed';
import { type Claim, ClaimLost, releaseClaim } from '@/store/queue/claims';
import {
  endJob,
  type Job,
  type JobProgress,
  noteJobProgress,
  postponeJob,
  repeatJob,
  setJobAside,
} from '@/store/queue/jobs';
import { happenedBy } from './happened';
import { JOB_WORK } from './jobs';
import { keepClaim } from './keep-claim';
import { isFullDisk, tellFullDisk } from './tell-full-disk';

const TELL_EVERY_MILLISECONDS = 1000;
/** A job that was begun so often and never came to an end has ended its worker each time. */
const MOST_BEGUN = 6;

/**
 * Runs one claimed job and writes down how it ended.
 * @param ending ends the job where the worker itself ends: it is done from the beginning by another, and no try is counted
 */
export async function runJob(claim: Claim, job: Job, ending?: AbortSignal): Promise<void> {
  const db = database();
  const work = JOB_WORK[job.kind];
  const kept = keepClaim(claim);
  const signal = ending ? AbortSignal.any([kept.gone, ending]) : kept.gone;
  const teller = progressTeller(claim);
  const about = { job: job.id, kind: job.kind, subject: job.subject };
  let isLetGo = false;
  try {
    if (job.attempts > MOST_BEGUN) return await setAside(claim, job, job.trouble ?? 'It ended the worker each time');
    const { write, again = work.everySeconds, trouble } = await work.run({ job, signal, tell: teller.tell });
    await teller.end();
    await transaction(async (trx) => {
      await write?.(trx);
      if (again === undefined) await endJob(trx, claim);
      else await repeatJob(trx, claim, again, trouble);
    });
    isLetGo = true;
    if (again === undefined) log.info(about, 'job done');
  } catch (error) {
    if (error instanceof ClaimLost || kept.gone.aborted) return log.info(about, 'job taken out of our hands');
    if (ending?.aborted) return await postponeJob(db, claim, 0, 'The worker was ended', 'the machine');
    const happened = happenedBy(error);
    const says = error instanceof Error ? error.message : String(error);
    const machine = happened.what === 'machine';
    if (isFullDisk(error)) await tellFullDisk();
    const follows = whatFollows(happened, machine ? job.putOffs + 1 : job.attempts, Math.random());
    if (follows.next === 'a person') return await setAside(claim, job, says);
    log.error({ ...about, seconds: follows.seconds, why: says }, 'job put off');
    await postponeJob(db, claim, follows.seconds, says, machine ? 'the machine' : 'the job');
  } finally {
    kept.letGo();
    await teller.end();
    if (!isLetGo) await releaseClaim(db, claim);
    const videoId = await work.videoOf?.(db, job);
    if (videoId) await announce(db, 'video', videoId);
  }
}

async function setAside(claim: Claim, job: Job, trouble: string): Promise<void> {
  const { everySeconds, setAside: writeAside } = JOB_WORK[job.kind];
  const about = { job: job.id, kind: job.kind, subject: job.subject, why: trouble };
  if (everySeconds !== undefined) {
    log.error(about, 'job failed, and is done again at its next time');
    return repeatJob(database(), claim, everySeconds);
  }
  log.error(about, 'job set aside');
  await transaction(async (trx) => {
    await setJobAside(trx, claim, trouble);
    await writeAside?.(trx, job, trouble);
  });
}

/** Keeps what a job tells of itself, the newest now and then. */
function progressTeller(claim: Claim): { tell: (progress: JobProgress) => void; end: () => Promise<void> } {
  let [kept, keeping] = [performance.now(), Promise.resolve()];
  return {
    tell(progress) {
      if (performance.now() - kept < TELL_EVERY_MILLISECONDS) return;
      kept = performance.now();
      keeping = keeping.then(() => noteJobProgress(database(), claim, progress)).catch(() => undefined);
    },
    end: () => keeping,
  };
}
