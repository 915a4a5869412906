import { database } from '@/store/database';
import { entriesAbove, type FeedEntry, newestEntry } from '@/store/feed';
import { log } from './log';

type Listener = (entries: FeedEntry[]) => void;

const POLL_MILLISECONDS = 300;
/** Entries of transactions that end late have lower numbers than some that were read; so many are read again. */
const LOOK_BACK = 50;

const listeners = new Set<Listener>();
const seen = new Set<number>();
let running = false;

/** Hears of every change that any process makes, until the function returned is called. One poll serves all listeners. */
export function hearChanges(listener: Listener): () => void {
  listeners.add(listener);
  if (!running) void poll();
  return () => listeners.delete(listener);
}

async function poll(): Promise<void> {
  running = true;
  let from = await newestEntry(database()).catch(() => 0);
  for (let id = from - LOOK_BACK; id <= from; id += 1) seen.add(id);
  while (listeners.size > 0) {
    try {
      const fresh = (await entriesAbove(database(), from - LOOK_BACK)).filter((entry) => !seen.has(entry.id));
      for (const { id } of fresh) {
        seen.add(id);
        from = Math.max(from, id);
      }
      for (const id of seen) if (id < from - LOOK_BACK) seen.delete(id);
      if (fresh.length > 0) for (const listener of listeners) listener(fresh);
    } catch (error) {
      log.warn({ error: (error as Error).message }, 'the feed could not be read');
    }
    await new Promise((resolve) => setTimeout(resolve, POLL_MILLISECONDS));
  }
  running = false;
}
