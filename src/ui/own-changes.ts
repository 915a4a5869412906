'use client';

/** A page hears of its own changes within seconds. */
const MOST_KEPT = 500;

/** What a page read again after each of its own changes: the change by its number, with the key of what was read. */
const read = new Map<number, string>();

const keyOf = (queryKey: readonly unknown[]) => JSON.stringify(queryKey);

/** Notes changes that a page has made itself, after which it reads what is under a key again. */
export function noteOwnChanges(ids: readonly number[], queryKey: readonly unknown[]): void {
  for (const id of ids) read.set(id, keyOf(queryKey));
  for (const [oldest] of read) {
    if (read.size <= MOST_KEPT) break;
    read.delete(oldest);
  }
}

/** Whether what is under a key has been read again since each of these changes, by who made them. */
export const isReadSince = (ids: readonly number[], queryKey: readonly unknown[]): boolean =>
  ids.length > 0 && ids.every((id) => read.get(id) === keyOf(queryKey));
