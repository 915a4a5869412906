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

/** What lies over pages; undefined until it is loaded, which happens as soon as the page rests. */
export function useFloating(): Floating | undefined {
  useEffect(() => (loaded ? undefined : whenIdle(loadFloating)), []);
  return useSyncExternalStore(
    subscribe,
    () => loaded,
    () => undefined,
  );
}
