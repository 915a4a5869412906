'use client';

import { createContext, type ReactNode, useCallback, useContext, useMemo, useState } from 'react';
import { useFloating } from './floating/use-floating';
import type { Notice } from './notice';

interface Notices {
  say(text: string): void;
  /** Says what went wrong. */
  trouble(error: unknown): void;
}

const Context = createContext<Notices>({ say: () => {}, trouble: () => {} });

/** Says things to the person at the page. */
export const useNotices = () => useContext(Context);

/** Keeps and shows what was said, newest below. */
export function NoticesProvider({ children }: { children: ReactNode }) {
  const [notices, setNotices] = useState<Notice[]>([]);
  const floating = useFloating(notices.length > 0);
  const add = useCallback((kind: Notice['kind'], text: string) => {
    setNotices((all) => [
      ...all.filter((notice) => notice.text !== text),
      { id: Date.now() + Math.random(), kind, text },
    ]);
  }, []);
  const say = useCallback((text: string) => add('said', text), [add]);
  const trouble = useCallback(
    (error: unknown) => add('trouble', error instanceof Error ? error.message : String(error)),
    [add],
  );
  const value = useMemo(() => ({ say, trouble }), [say, trouble]);
  return (
    <Context.Provider value={value}>
      {children}
      {floating && notices.length > 0 && (
        <floating.NoticeList
          notices={notices}
          onClose={(id) => setNotices((all) => all.filter((each) => each.id !== id))}
        />
      )}
    </Context.Provider>
  );
}
