import type { Database } from './database';

/** What a change is about: a video (its words, cut, markers or drops), the channels, or the layers and the link shelf. */
export type Topic = 'video' | 'channels' | 'layers';

/** One change that pages hear of. */
export interface FeedEntry {
  id: number;
  topic: Topic;
  subject: string;
}

const KEPT_MILLISECONDS = 10 * 60 * 1000;

/** Tells every page that something changed. */
export async function announce(db: Database, topic: Topic, subject: string): Promise<void> {
  await db('feed').insert({ topic, subject, at: new Date() });
}

/** The number of the newest entry. */
export async function newestEntry(db: Database): Promise<number> {
  const row = await db('feed').max<{ newest: number | null }>({ newest: 'id' }).first();
  return row?.newest ?? 0;
}

/** Entries above a number, in order. */
export async function entriesAbove(db: Database, id: number): Promise<FeedEntry[]> {
  return db('feed').select('id', 'topic', 'subject').where('id', '>', id).orderBy('id').limit(1000);
}

/** Forgets entries that no open page can still be waiting for. */
export async function forgetOldEntries(db: Database): Promise<void> {
  await db('feed')
    .where('at', '<', new Date(Date.now() - KEPT_MILLISECONDS))
    .delete();
}
