import { inSeconds, now } from '@/store/clock';
import { type Database, fromJson, toJson } from '@/store/database';
import { newId } from '@/store/ids';
import { deleteInSteps } from '@/store/in-steps';
import { type Claim, ClaimLost, claimed, claimRows, dueRows } from '@/store/queue/claims';

/** Kinds of background work, each with what its subject is. */
export const JOB_KINDS = [
  /** The facts and the digest of a cut that has arrived. */
  'read',
  /** Sound and shots of a cut. */
  'measure',
  /** The file of a rendition. */
  'encode',
  /** A file that goes up before its words; of an early upload. */
  'early',
  /** Which files of a video go up before its words. */
  'plan early',
  /** The picture that the layers ask for, of a video. */
  'picture',
  /** The playlists of a channel, from time to time. */
  'playlists',
  /** Notices by mail or by webhook, as they are due. */
  'tell',
  /** Live videos of a channel, read again at the site from time to time. */
  'read live',
  /** Videos of a channel that are held, looked at together from time to time. */
  'watch held',
  /** What has changed of a live video, given to its site; of a drop. */
  'give',
  /** What a person does with many videos at once. */
  'many',
  /** The folder that is watched for finished videos, from time to time. */
  'inbox',
  /** Files and rows that are no longer needed, from time to time. */
  'tidy',
] as const;
export type JobKind = (typeof JOB_KINDS)[number];

export type JobState = 'waiting' | 'done' | 'set aside';

/** How far a job is, in words, `fraction` from 0 to 1 and the seconds that are left where they are known. */
export interface JobProgress {
  says: string;
  fraction?: number;
  secondsLeft?: number;
}

/** A piece of background work. */
export interface Job {
  id: string;
  kind: JobKind;
  /** The id of what it is done for. */
  subject: string;
  state: JobState;
  /** How often it was begun without coming to an end. */
  attempts: number;
  /** How often the machine itself has put it off. */
  putOffs: number;
  progress: JobProgress | undefined;
  /** What it said when it went wrong last. */
  trouble: string | undefined;
  /** Whether a worker has it in hand. */
  running: boolean;
  /** Whether a person has it wait. */
  held: boolean;
}

interface Row extends Omit<Job, 'progress' | 'trouble' | 'running' | 'held'> {
  progress: string | null;
  trouble: string | null;
  running: number;
  held: number;
}

const columns = ['id', 'kind', 'subject', 'state', 'attempts', 'putOffs', 'progress', 'trouble', 'held'];

const fromRow = ({ progress, trouble, running, held, ...row }: Row): Job => ({
  ...row,
  progress: fromJson<JobProgress>(progress),
  trouble: trouble ?? undefined,
  running: running === 1,
  held: held === 1,
});

const isRunning = (db: Database) => ({ running: db.raw('lease_until IS NOT NULL AND lease_until > UTC_TIMESTAMP(3)') });

/** What a job is when it is asked for: due now, in nobody's hands, nothing tried. */
const afresh = (db: Database) => ({
  state: 'waiting',
  nextTryAt: now(db),
  leaseOwner: null,
  leaseUntil: null,
  attempts: 0,
  putOffs: 0,
  progress: null,
  trouble: null,
  endedAt: null,
  held: false,
});

/**
 * Asks for work on each of the subjects. What is waiting, or being done, or done already stays as it is.
 * @param wish `priority`: what is more goes first, 0 is usual; `seconds`: how soon it is due
 */
export async function askForJobs(
  db: Database,
  kind: JobKind,
  subjects: readonly string[],
  { priority = 0, seconds = 0 }: { priority?: number; seconds?: number } = {},
): Promise<void> {
  if (subjects.length === 0) return;
  const asked = { ...afresh(db), kind, priority, askedAt: now(db), nextTryAt: inSeconds(db, seconds) };
  const rows = subjects.map((subject) => ({ id: newId(), subject, ...asked }));
  await db('jobs').insert(rows).onConflict(['kind', 'subject']).ignore();
}

/** Asks for work to be done anew, also where it is done, or set aside, or being done on what has changed since. */
export async function askForJobsAnew(db: Database, kind: JobKind, subjects: readonly string[]): Promise<void> {
  if (subjects.length === 0) return;
  await askForJobs(db, kind, subjects);
  await db('jobs')
    .where({ kind })
    .whereIn('subject', [...subjects])
    .update(afresh(db));
}

/** Takes work back; whoever has it in hand hears so with the next heartbeat and ends it. */
export async function cancelJobs(db: Database, subjects: readonly string[]): Promise<void> {
  await db('jobs')
    .whereIn('subject', [...subjects])
    .delete();
}

/** Takes one piece of work back. */
export async function cancelJob(db: Database, kind: JobKind, subject: string): Promise<void> {
  await db('jobs').where({ kind, subject }).delete();
}

/**
 * Claims jobs that are due: those of the highest priority first, then those that have waited longest. A try is counted
 * when it begins, so that a job that ends the whole process is found out, too.
 * @param most how many at once
 */
export async function claimJobs(
  kinds: readonly JobKind[],
  worker: string,
  leaseSeconds: number,
  most: number,
): Promise<{ claim: Claim; job: Job }[]> {
  const choose = (trx: Database): Promise<Row[]> =>
    dueRows(trx, 'jobs', ['waiting'])
      .whereIn('kind', [...kinds])
      .select(columns)
      .select(isRunning(trx))
      .orderBy([{ column: 'priority', order: 'desc' }, 'nextTryAt'])
      .limit(most);
  const counted = (trx: Database) => ({ attempts: trx.raw('attempts + 1') });
  const claims = await claimRows('jobs', choose, worker, leaseSeconds, counted);
  return claims.map(({ row, ...claim }) => ({ claim, job: { ...fromRow(row), attempts: row.attempts + 1 } }));
}

async function set(db: Database, claim: Claim, fields: Record<string, unknown>): Promise<void> {
  if ((await claimed(db, claim).update(fields)) === 0) throw new ClaimLost(`job ${claim.id}`);
}

const letGo = { leaseOwner: null, leaseUntil: null };

/** Notes how far a job is. @throws ClaimLost where it was taken back, or is another's */
export async function noteJobProgress(db: Database, claim: Claim, progress: JobProgress): Promise<void> {
  await set(db, claim, { progress: toJson(progress) });
}

/** Ends a job that is done. @throws ClaimLost */
export async function endJob(db: Database, claim: Claim): Promise<void> {
  await set(db, claim, { ...letGo, state: 'done', progress: null, trouble: null, endedAt: now(db) });
}

/**
 * Lets a job rest for so many seconds after it has gone well; it is then done once more.
 * @param trouble what it waits for, where that is worth saying
 * @throws ClaimLost
 */
export async function repeatJob(db: Database, claim: Claim, seconds: number, trouble?: string): Promise<void> {
  const rested = { progress: null, trouble: trouble?.slice(0, 1000) ?? null, attempts: 0, putOffs: 0 };
  await set(db, claim, { ...letGo, ...rested, nextTryAt: inSeconds(db, seconds) });
}

/**
 * Lets a job rest that has gone wrong, and keeps what it said.
 * @param seconds until the next try
 * @param whose fault: that of the machine does not count as a try
 */
export async function postponeJob(
  db: Database,
  claim: Claim,
  seconds: number,
  trouble: string,
  whose: 'the job' | 'the machine',
): Promise<void> {
  const counted = whose === 'the job' ? {} : { attempts: db.raw('attempts - 1'), putOffs: db.raw('put_offs + 1') };
  const nextTryAt = inSeconds(db, seconds);
  await set(db, claim, { ...letGo, ...counted, nextTryAt, progress: null, trouble: trouble.slice(0, 1000) });
}

/** Sets a job aside that has failed too often; it is tried again when a person asks for it. @throws ClaimLost */
export async function setJobAside(db: Database, claim: Claim, trouble: string): Promise<void> {
  const said = { progress: null, trouble: trouble.slice(0, 1000) };
  await set(db, claim, { ...letGo, ...said, state: 'set aside', endedAt: now(db) });
}

/** The jobs of one kind, by subject. */
export async function jobsOf(db: Database, kind: JobKind, subjects: readonly string[]): Promise<Map<string, Job>> {
  if (subjects.length === 0) return new Map();
  const rows: Row[] = await db('jobs')
    .where({ kind })
    .whereIn('subject', [...subjects])
    .select(columns)
    .select(isRunning(db));
  return new Map(rows.map((row) => [row.subject, fromRow(row)]));
}

/** The jobs that were set aside, newest first. */
export async function jobsSetAside(db: Database, most = 100): Promise<Job[]> {
  const rows: Row[] = await db('jobs')
    .where({ state: 'set aside' })
    .orderBy('endedAt', 'desc')
    .limit(most)
    .select(columns)
    .select(isRunning(db));
  return rows.map(fromRow);
}

/** Has work wait where it is, or go on. Whether there was such work is returned. */
export async function holdJob(db: Database, kind: JobKind, subject: string, held: boolean): Promise<boolean> {
  return (await db('jobs').where({ kind, subject, state: 'waiting' }).update({ held })) > 0;
}

/** Puts work before all other of its kind. Whether there was such work is returned. */
export async function hastenJob(db: Database, kind: JobKind, subject: string): Promise<boolean> {
  const first = { priority: ASKED_PRIORITY, nextTryAt: now(db) };
  return (await db('jobs').where({ kind, subject, state: 'waiting' }).update(first)) > 0;
}

/** What a person asks for goes before what is done by itself. */
const ASKED_PRIORITY = 10;

/** Has jobs tried again that were set aside. How many there are is returned. */
export async function retryJobs(
  db: Database,
  by: { kind: JobKind; subjects: readonly string[] } | 'all',
): Promise<number> {
  const query = db('jobs').where({ state: 'set aside' });
  if (by !== 'all') query.where({ kind: by.kind }).whereIn('subject', [...by.subjects]);
  return query.update({ ...afresh(db), priority: ASKED_PRIORITY });
}

/** Work that is asked for anew each time. Of other kinds, that it is done keeps it from being done once more. */
const ASKED_ANEW: readonly JobKind[] = ['give', 'many'];
const DONE_KEPT_SECONDS = 30 * 24 * 3600;

/** Forgets work that was done some weeks ago, and would be asked for anew. */
export async function forgetOldJobs(db: Database): Promise<void> {
  for (const kind of ASKED_ANEW) {
    await deleteInSteps(() =>
      db('jobs').where({ state: 'done', kind }).where('endedAt', '<', inSeconds(db, -DONE_KEPT_SECONDS)),
    );
  }
}
