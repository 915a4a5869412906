'use client';

import { useSyncExternalStore } from 'react';

/** What of the page is not saved yet. */
interface Unsaved {
  /** Texts that were typed and are not saved. */
  drafts: number;
  /** Changes that are on their way, or wait to be tried again. */
  underWay: number;
  /** Of these, changes that were tried in vain. */
  waiting: number;
  /** Files that are still coming from this page. */
  arriving: number;
}

const NOTHING: Unsaved = { drafts: 0, underWay: 0, waiting: 0, arriving: 0 };
let unsaved = NOTHING;
const listeners = new Set<() => void>();

/** Notes that so many more things of a kind on the page are not saved yet. */
export function noteUnsaved(kind: keyof Unsaved, more: 1 | -1): void {
  unsaved = { ...unsaved, [kind]: unsaved[kind] + more };
  for (const listener of listeners) listener();
}

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** What of the page is not saved yet. */
export const useUnsaved = (): Unsaved =>
  useSyncExternalStore(
    subscribe,
    () => unsaved,
    () => NOTHING,
  );

/** Whether leaving the page would lose something. */
export const isUnsaved = (): boolean => unsaved.drafts + unsaved.underWay + unsaved.arriving > 0;

type Flush = () => Promise<boolean>;
const flushes = new Set<Flush>();

/** Has a draft saved whenever all are to be, until the function returned is called. */
export function registerDraft(flush: Flush): () => void {
  flushes.add(flush);
  return () => flushes.delete(flush);
}

/** Saves every draft on the page at once. Whether all of them are saved is returned. */
export async function saveAllDrafts(): Promise<boolean> {
  const saved = await Promise.all([...flushes].map((flush) => flush()));
  return saved.every(Boolean);
}
