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

/** Entries that were made since, in order of their numbers. */
export async function entriesSince(db: Database, at: Date): Promise<(FeedEntry & { at: Date })[]> {
  return db('feed').select('id', 'topic', 'subject', 'at').where('at', '>=', at).orderBy('id');
}

/** Forgets entries that no open page can still be waiting for. */
export async function forgetOldEntries(db: Database): Promise<void> {
  await db('feed')
    .where('at', '<', new Date(Date.now() - KEPT_MILLISECONDS))
    .delete();
}
