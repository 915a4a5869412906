import { database } from '@/store/database';
import { entriesSince, type FeedEntry } from '@/store/feed';
import { log } from './log';

type Listener = (entries: FeedEntry[]) => void;

const POLL_MILLISECONDS = 300;
/**
 * Entries of transactions that end late have lower numbers, and earlier times, than some that were read before them: all of
 * this span are read again each time. No transaction lasts as long.
 */
const LOOK_BACK_MILLISECONDS = 15_000;

const listeners = new Set<Listener>();
/** Numbers of the entries of the last span that were told, with their times. */
const told = new Map<number, number>();
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
    const missed = await entriesSince(database(), new Date(Date.now() - ago));
    if (missed.length > 0 && listeners.has(listener)) listener(missed);
  } catch (error) {
    log.warn({ error: (error as Error).message }, 'what a page has missed could not be read');
  }
}

async function freshEntries(): Promise<FeedEntry[]> {
  const from = Date.now() - LOOK_BACK_MILLISECONDS;
  const fresh = (await entriesSince(database(), new Date(from))).filter(({ id }) => !told.has(id));
  for (const { id, at } of fresh) told.set(id, at.getTime());
  for (const [id, at] of told) if (at < from) told.delete(id);
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
