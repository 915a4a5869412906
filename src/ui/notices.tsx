'use client';

import { X } from 'lucide-react';
import { Toast } from 'radix-ui';
import { createContext, type ReactNode, useCallback, useContext, useMemo, useState } from 'react';

interface Notice {
  id: number;
  kind: 'said' | 'trouble';
  text: string;
}

interface Notices {
  say(text: string): void;
  /** Says what went wrong; it stays until it is closed. */
  trouble(error: unknown): void;
}

const Context = createContext<Notices>({ say: () => {}, trouble: () => {} });

/** Says things to the person at the page. */
export const useNotices = () => useContext(Context);

/** Keeps and shows what was said, newest below. */
export function NoticesProvider({ children }: { children: ReactNode }) {
  const [notices, setNotices] = useState<Notice[]>([]);
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
      <Toast.Provider swipeDirection="down">
        {children}
        {notices.map((notice) => (
          <Toast.Root
            key={notice.id}
            duration={notice.kind === 'said' ? 5000 : Number.POSITIVE_INFINITY}
            onOpenChange={(open) => !open && setNotices((all) => all.filter((each) => each.id !== notice.id))}
            className={`enamel flex items-start gap-3 p-4 shadow-lg ${notice.kind === 'trouble' ? 'bg-snag-wash' : ''}`}
          >
            <Toast.Description className="flex-1">
              {notice.kind === 'trouble' && <b className="text-snag">▲ </b>}
              {notice.text}
            </Toast.Description>
            <Toast.Close aria-label="Close" className="rounded p-1 text-soft hover:text-ink">
              <X size={16} />
            </Toast.Close>
          </Toast.Root>
        ))}
        <Toast.Viewport className="notices fixed right-4 z-50 flex w-[min(420px,calc(100vw-32px))] flex-col gap-2" />
      </Toast.Provider>
    </Context.Provider>
  );
}
