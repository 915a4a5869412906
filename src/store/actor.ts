import { AsyncLocalStorage } from 'node:async_hooks';
import { type Actor, MANAGER, type Who } from '@/core/actor';

const actors = new AsyncLocalStorage<Actor>();
let ofProcess: Actor = { who: MANAGER };

/** Says who does whatever this process does, where nobody else is said to. */
export function beActor(actor: Actor): void {
  ofProcess = actor;
}

/** Does something as somebody: whatever is written down of it is theirs. */
export const actAs = <T>(actor: Actor, work: () => Promise<T>): Promise<T> => actors.run(actor, work);

/** Who does what is done now. */
export const actorNow = (): Actor => actors.getStore() ?? ofProcess;

/** Columns that say by whom a row was written. */
export interface ByRow {
  actor: Who | null;
  via: Actor['via'] | null;
}

/** Who does what is done now, as a row says it. */
export const byNow = (): ByRow => {
  const { who, via } = actorNow();
  return { actor: who, via: via ?? null };
};

/** By whom a row was written; of those that are older than that, nobody knows: there was one person. */
export const actorOf = ({ actor, via }: ByRow): Actor => ({ who: actor ?? MANAGER, ...(via && { via }) });
