/**
 * Loads something once the page has nothing more urgent to do, so that it is there when it is needed, also without the line.
 * What takes that back is returned.
 */
export function whenIdle(load: () => Promise<unknown>): () => void {
  // Safari has no idle callbacks.
  const later = window.requestIdleCallback ?? ((work: () => void) => window.setTimeout(work, 300));
  const cancel = window.cancelIdleCallback ?? window.clearTimeout;
  const asked = later(() => void load().catch(() => undefined));
  return () => cancel(asked);
}
