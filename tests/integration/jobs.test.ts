import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { lookAtSheet } from '@/desk/views/look-at-sheet';
import { MachineError, TooLong } from '@/media/program';
import { databaseTime } from '@/store/clock';
import { closeDatabase, database } from '@/store/database';
import { newId } from '@/store/ids';
import {
  askForJobs,
  askForJobsAnew,
  cancelJobs,
  claimJobs,
  endJob,
  type Job,
  jobsSetAside,
  noteJobProgress,
  retryJobs,
} from '@/store/queue/jobs';
import { JOB_WORK } from '@/worker/jobs';
import type { JobWork } from '@/worker/jobs/job-work';
import { runJob } from '@/worker/run-job';
import { makeClip } from '../setup/clips';
import { bringFile } from '../setup/desk';
import { jobOn, workOn } from '../setup/jobs';

const db = database();
afterAll(closeDatabase);
// Kinds that other files of tests ask for are not touched here.
beforeEach(() => db('jobs').where({ kind: 'tidy' }).delete());

/** Puts other work in the place of tidying, for one call. @param everySeconds where it comes again */
async function instead<T>(work: JobWork['run'], call: () => Promise<T>, everySeconds?: number): Promise<T> {
  const tidy = JOB_WORK.tidy;
  JOB_WORK.tidy = { run: work, everySeconds };
  try {
    return await call();
  } finally {
    JOB_WORK.tidy = tidy;
  }
}
const failing = (error: Error) => async () => {
  throw error;
};
async function asked(...subjects: string[]): Promise<string> {
  await askForJobs(db, 'tidy', subjects);
  return subjects[0] ?? '';
}
const secondsUntilDue = async (job: Job): Promise<number> => {
  const row: { nextTryAt: Date } = await db('jobs').where({ id: job.id }).first('nextTryAt');
  return (row.nextTryAt.getTime() - (await databaseTime(db)).getTime()) / 1000;
};

describe('jobs', () => {
  it('are given to one worker at a time, and are taken up again when the lease is over', async () => {
    await asked(newId(), newId());
    const claim = async (worker: string, seconds: number) => (await claimJobs(['tidy'], worker, seconds, 1))[0];
    const [a, b] = await Promise.all([claim('a', 0.4), claim('b', 30)]);
    const taken = [a, b].flatMap((each) => each?.job.subject ?? []);
    expect(new Set(taken).size).toBe(taken.length);
    const rest = taken.length === 2 ? undefined : await claim('b', 30);
    expect(taken.length + (rest ? 1 : 0)).toBe(2);
    expect(await claim('c', 30)).toBeUndefined();
    await expect.poll(async () => (await claim('c', 30))?.job.subject).toBe(a?.job.subject);
  });

  it('do not go by the clock of the machine', async () => {
    const subject = await asked(newId());
    const [held] = await claimJobs(['tidy'], 'a', 30, 1);
    const real = Date.now;
    Date.now = () => real() + 3_600_000;
    try {
      expect(await claimJobs(['tidy'], 'ahead', 30, 1)).toEqual([]);
      if (held) await endJob(db, held.claim);
      expect((await jobOn('tidy', subject)).state).toBe('done');
    } finally {
      Date.now = real;
    }
  });

  it('of a higher priority go first', async () => {
    const [usual, first] = [newId(), newId()];
    await askForJobs(db, 'tidy', [usual]);
    await askForJobs(db, 'tidy', [first], { priority: 1 });
    expect((await claimJobs(['tidy'], 'a', 30, 1))[0]?.job.subject).toBe(first);
  });

  it('asked for once more stay as they are; asked for anew they are begun again', async () => {
    const subject = await asked(newId());
    const [held] = await claimJobs(['tidy'], 'a', 30, 1);
    if (!held) throw new Error('no claim');
    await asked(subject);
    await noteJobProgress(db, held.claim, { says: 'half', fraction: 0.5 });
    expect(await jobOn('tidy', subject)).toMatchObject({ running: true, progress: { says: 'half', fraction: 0.5 } });
    await askForJobsAnew(db, 'tidy', [subject]);
    await expect(endJob(db, held.claim)).rejects.toThrow(held.job.id);
    expect(await jobOn('tidy', subject)).toMatchObject({ state: 'waiting', attempts: 0, running: false });
  });

  it('that nobody can do are set aside with what they said, and a person has them tried again', async () => {
    const subject = await asked(newId());
    await instead(failing(new Error('the moon is in the way')), async () => {
      for (let n = 1; n <= 5; n += 1) expect((await workOn('tidy', subject)).state).toBe('waiting');
      await workOn('tidy', subject);
    });
    expect(await jobOn('tidy', subject)).toMatchObject({ state: 'set aside', trouble: 'the moon is in the way' });
    expect((await jobsSetAside(db)).map((job) => job.subject)).toContain(subject);
    expect(await retryJobs(db, { kind: 'tidy', subjects: [subject] })).toBe(1);
    expect(
      await instead(
        async () => ({}),
        () => workOn('tidy', subject),
      ),
    ).toMatchObject({ state: 'done' });
  });

  it('that end the worker each time are set aside, too', async () => {
    const subject = await asked(newId());
    for (let n = 1; n <= 6; n += 1) {
      // A worker that takes it and is never heard of again.
      await db('jobs').where({ subject }).update({ leaseUntil: null });
      await claimJobs(['tidy'], 'dies', 30, 1);
    }
    await db('jobs').where({ subject }).update({ leaseUntil: null });
    const [again] = await claimJobs(['tidy'], 'lives', 30, 1);
    if (again) await instead(failing(new Error('never run')), () => runJob(again.claim, again.job));
    expect(await jobOn('tidy', subject)).toMatchObject({
      state: 'set aside',
      trouble: 'It ended the worker each time',
    });
  });

  it('that take too long are tried twice', async () => {
    const subject = await asked(newId());
    await instead(failing(new TooLong('ffprobe took too long')), async () => {
      expect((await workOn('tidy', subject)).state).toBe('waiting');
      expect((await workOn('tidy', subject)).state).toBe('set aside');
    });
  });

  it('are never set aside for what is the machine’s own fault, and come back ever later', async () => {
    const subject = await asked(newId());
    const full = Object.assign(new Error('no space left'), { code: 'ENOSPC' });
    for (const error of [new MachineError('ffmpeg cannot be started'), full]) {
      await instead(failing(error), async () => {
        for (let n = 0; n < 6; n += 1) await workOn('tidy', subject);
      });
    }
    const job = await jobOn('tidy', subject);
    expect(job).toMatchObject({ state: 'waiting', attempts: 0, putOffs: 12 });
    expect(await secondsUntilDue(job)).toBeGreaterThan(140);
  });

  it('that were taken back end at the next heartbeat', async () => {
    const subject = await asked(newId());
    const lease = process.env.KETTLE_LEASE_SECONDS;
    expect(lease).toBe('2');
    let ended: unknown;
    const running = instead(
      ({ signal }) =>
        new Promise((_, reject) => {
          signal.addEventListener('abort', () => {
            ended = signal.reason;
            reject(signal.reason);
          });
        }),
      async () => {
        const [held] = await claimJobs(['tidy'], 'a', 2, 1);
        if (held) await runJob(held.claim, held.job);
      },
    );
    await expect.poll(async () => (await jobOn('tidy', subject)).running).toBe(true);
    await cancelJobs(db, [subject]);
    await running;
    expect(ended).toMatchObject({ name: 'ClaimLost' });
  });

  it('whose worker is ended in good order are begun again at once, and no try is counted', async () => {
    const subject = await asked(newId());
    const ending = new AbortController();
    const untilEnded: JobWork['run'] = ({ signal }) =>
      new Promise((_, reject) => signal.addEventListener('abort', () => reject(signal.reason)));
    await instead(untilEnded, async () => {
      const [held] = await claimJobs(['tidy'], 'a', 30, 1);
      const running = held && runJob(held.claim, held.job, ending.signal);
      ending.abort();
      await running;
    });
    const job = await jobOn('tidy', subject);
    expect(job).toMatchObject({ state: 'waiting', attempts: 0, running: false });
    expect(await secondsUntilDue(job)).toBeLessThanOrEqual(0);
  });

  it('that come again are due once more, with a clean slate', async () => {
    const subject = await asked(newId());
    await instead(failing(new Error('once')), () => workOn('tidy', subject));
    const job = await instead(
      async () => ({}),
      () => workOn('tidy', subject),
      600,
    );
    expect(job).toMatchObject({ state: 'waiting', attempts: 0, trouble: undefined });
    expect(await secondsUntilDue(job)).toBeGreaterThan(590);
  });

  it('that come again are never set aside, however often they fail', async () => {
    const subject = await asked(newId());
    for (let n = 0; n < 6; n += 1) await instead(failing(new Error('again')), () => workOn('tidy', subject), 600);
    const job = await jobOn('tidy', subject);
    expect(job).toMatchObject({ state: 'waiting', attempts: 0 });
    expect(await secondsUntilDue(job)).toBeGreaterThan(590);
  });
});

describe('the jobs on a cut', () => {
  it('that was set aside while it was read is said on its Sheet, and is read when that is asked for', async () => {
    const videoId = await bringFile(makeClip({ name: 'aside.mp4', seconds: 2 }));
    const cutId = (await lookAtSheet(videoId)).cut?.id ?? '';
    const read = JOB_WORK.read;
    JOB_WORK.read = { ...read, run: failing(new TooLong('ffprobe took too long')) };
    try {
      await workOn('read', cutId);
      await workOn('read', cutId);
    } finally {
      JOB_WORK.read = read;
    }
    expect((await lookAtSheet(videoId)).cut).toMatchObject({ state: 'reading', setAside: 'ffprobe took too long' });
    await retryJobs(db, { kind: 'read', subjects: [cutId] });
    await workOn('read', cutId);
    expect((await lookAtSheet(videoId)).cut).toMatchObject({ state: 'ready', setAside: undefined });
  });
});
