import { useCallback, useRef, useState } from 'react';

/** Which videos of the Board are selected. */
export interface Selection {
  ids: ReadonlySet<string>;
  /** Selects one or lets it go; with `range` all from the one before to it. */
  toggle: (id: string, range: boolean) => void;
  set: (ids: readonly string[]) => void;
  clear: () => void;
}

/** @param order the ids as they stand on the page */
export function useSelection(order: readonly string[]): Selection {
  const [ids, setIds] = useState<ReadonlySet<string>>(new Set());
  const last = useRef<string>(undefined);
  const newest = useRef(order);
  newest.current = order;
  const toggle = useCallback((id: string, range: boolean) => {
    const [from, to] = [newest.current.indexOf(last.current ?? ''), newest.current.indexOf(id)];
    setIds((now) => {
      const next = new Set(now);
      const wanted = !now.has(id);
      const part = range && from >= 0 ? newest.current.slice(Math.min(from, to), Math.max(from, to) + 1) : [id];
      for (const each of part) {
        if (wanted) next.add(each);
        else next.delete(each);
      }
      return next;
    });
    last.current = id;
  }, []);
  const set = useCallback((all: readonly string[]) => setIds(new Set(all)), []);
  const clear = useCallback(() => setIds(new Set()), []);
  return { ids, toggle, set, clear };
}
