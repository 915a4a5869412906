'use client';

import { useSyncExternalStore } from 'react';

let drafts = 0;
const listeners = new Set<() => void>();

/** Notes that so many more drafts on the page are not saved yet. */
export function noteUnsaved(more: 1 | -1): void {
  drafts += more;
  for (const listener of listeners) listener();
}

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** Whether something that was typed on the page is not saved yet. */
export const useUnsaved = () =>
  useSyncExternalStore(
    subscribe,
    () => drafts > 0,
    () => false,
  );
