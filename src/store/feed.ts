import { AsyncLocalStorage } from 'node:async_hooks';
import { inSeconds, now } from '@/store/clock';
import type { Database } from '@/store/database';
import { deleteInSteps } from '@/store/in-steps';

/**
 * What a change is about: a video (its words, cut, markers or drops), the channels, the layers and the link shelf, whether
 * a site answers, what is done with many videos at once, or what a manager is told.
 */
export type Topic = 'video' | 'channels' | 'layers' | 'sites' | 'many' | 'notices';

/** One change that pages hear of. */
export interface FeedEntry {
  id: number;
  topic: Topic;
  subject: string;
}

const KEPT_SECONDS = 10 * 60;

const own = new AsyncLocalStorage<number[]>();

/** Tells every page that something changed. */
export async function announce(db: Database, topic: Topic, subject: string): Promise<void> {
  const [id] = await db('feed').insert({ topic, subject, at: now(db) });
  if (id !== undefined) own.getStore()?.push(id);
}

/** Does something; the numbers of what it announces are put to `ids`. */
export const notingAnnounced = <T>(ids: number[], work: () => Promise<T>): Promise<T> => own.run(ids, work);

/** Entries that were made within the last so many seconds, in order of their numbers. */
export async function entriesOfLast(db: Database, seconds: number): Promise<FeedEntry[]> {
  return db('feed').select('id', 'topic', 'subject').where('at', '>=', inSeconds(db, -seconds)).orderBy('id');
}

/** Forgets entries that no open page can still be waiting for. */
export async function forgetOldEntries(db: Database): Promise<void> {
  await deleteInSteps(() => db('feed').where('at', '<', inSeconds(db, -KEPT_SECONDS)));
}
