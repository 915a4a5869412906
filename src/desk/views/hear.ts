import { database } from '@/store/database';
import { entriesOfLast, type FeedEntry } from '@/store/feed';
import { log } from '../log';

export { notingAnnounced } from '@/store/feed';

type Listener = (entries: FeedEntry[]) => void;

const POLL_MILLISECONDS = 300;
/**
 * Entries of transactions that end late have lower numbers, and earlier times, than some that were read before them: all of
 * this span are read again each time. No transaction lasts as long.
 */
const LOOK_BACK_SECONDS = 15;

const listeners = new Set<Listener>();
/** Numbers of the entries of the last span that were told. */
let told = new Set<number>();
let running = false;

/**
 * Hears of every change that any process makes, until the function returned is called. One poll serves all listeners.
 * @param agoMilliseconds from when on: what changed between a page's reading and its listening is told first
 */
export function hearChanges(listener: Listener, agoMilliseconds = 0): () => void {
  listeners.add(listener);
  if (!running) void poll();
  if (agoMilliseconds > 0) void tellSince(listener, agoMilliseconds);
  return () => listeners.delete(listener);
}

async function tellSince(listener: Listener, ago: number): Promise<void> {
  try {
    const missed = await entriesOfLast(database(), ago / 1000);
    if (missed.length > 0 && listeners.has(listener)) listener(missed);
  } catch (error) {
    log.warn({ error: (error as Error).message }, 'what a page has missed could not be read');
  }
}

async function freshEntries(): Promise<FeedEntry[]> {
  const entries = await entriesOfLast(database(), LOOK_BACK_SECONDS);
  const fresh = entries.filter(({ id }) => !told.has(id));
  told = new Set(entries.map(({ id }) => id));
  return fresh;
}

async function poll(): Promise<void> {
  running = true;
  // What a page has read before it listens, it does not need to hear of.
  await freshEntries().catch(() => undefined);
  while (listeners.size > 0) {
    try {
      const fresh = await freshEntries();
      if (fresh.length > 0) for (const listener of listeners) listener(fresh);
    } catch (error) {
      log.warn({ error: (error as Error).message }, 'the feed could not be read');
    }
    await new Promise((resolve) => setTimeout(resolve, POLL_MILLISECONDS));
  }
  running = false;
}
