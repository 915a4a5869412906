import { useEffect, useSyncExternalStore } from 'react';
import { whenIdle } from '../when-idle';

type Floating = typeof import('./parts');

let loaded: Floating | undefined;
const waiting = new Set<() => void>();

/** Loads what lies over pages, once. */
export async function loadFloating(): Promise<void> {
  if (loaded) return;
  loaded = await import('./parts');
  for (const hear of waiting) hear();
}

function subscribe(hear: () => void) {
  waiting.add(hear);
  return () => waiting.delete(hear);
}

/**
 * What lies over pages; undefined until it is loaded, which happens as soon as the page rests.
 * @param needed whether something of it is to be shown now: it is not waited for, and where it could not be loaded, tried again
 */
export function useFloating(needed = false): Floating | undefined {
  useEffect(() => {
    if (loaded) return;
    if (!needed) return whenIdle(loadFloating);
    void loadFloating().catch(() => undefined);
  }, [needed]);
  return useSyncExternalStore(
    subscribe,
    () => loaded,
    () => undefined,
  );
}
