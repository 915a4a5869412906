import { CARRIED_STATES, type CarriedState } from '@/core/drop';
import type { Database } from '@/store/database';
import { dueRows } from '@/store/queue/claims';
import type { JobKind } from '@/store/queue/jobs';

/** What is due and in nobody's hands: states of drops, and kinds of jobs. */
export interface Due {
  states: Set<CarriedState>;
  kinds: Set<JobKind>;
}

/** The sorts of work of which some is due. It costs two short queries, however many sorts there are. */
export async function sortsDue(db: Database): Promise<Due> {
  const [drops, jobs]: [{ state: CarriedState }[], { kind: JobKind }[]] = await Promise.all([
    dueRows(db, 'drops', CARRIED_STATES).distinct('state'),
    dueRows(db, 'jobs', ['waiting']).distinct('kind'),
  ]);
  return { states: new Set(drops.map(({ state }) => state)), kinds: new Set(jobs.map(({ kind }) => kind)) };
}
