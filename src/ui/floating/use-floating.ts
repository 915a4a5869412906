import { useEffect, useSyncExternalStore } from 'react';
import { whenIdle } from '../when-idle';

type Floating = typeof import('./parts');

let loaded: Floating | undefined;
const waiting = new Set<() => void>();

/** Where the line is away, it is tried again after this. */
const AGAIN_MILLISECONDS = 2000;

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
 * @param needed whether something of it is to be shown now: it is not waited for, and tried until it is loaded
 */
export function useFloating(needed = false): Floating | undefined {
  useEffect(() => {
    if (loaded) return;
    if (!needed) return whenIdle(loadFloating);
    let again: ReturnType<typeof setTimeout>;
    const load = () => {
      loadFloating().catch(() => {
        again = setTimeout(load, AGAIN_MILLISECONDS);
      });
    };
    load();
    return () => clearTimeout(again);
  }, [needed]);
  return useSyncExternalStore(
    subscribe,
    () => loaded,
    () => undefined,
  );
}
