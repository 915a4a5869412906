import { useEffect, useState } from 'react';

/** Which columns this browser shows. */
export interface Columns {
  /** Ids of channels. */
  hidden: ReadonlySet<string>;
  hideEmpty: boolean;
  setHidden: (channelId: string, hidden: boolean) => void;
  setHideEmpty: (hide: boolean) => void;
}

const KEY = 'board columns';

/** The choice of columns, kept in this browser. */
export function useColumns(): Columns {
  const [kept, setKept] = useState<{ hidden: string[]; hideEmpty: boolean }>({ hidden: [], hideEmpty: false });
  useEffect(() => {
    const text = localStorage.getItem(KEY);
    if (text) setKept(JSON.parse(text));
  }, []);
  const keep = (next: typeof kept) => {
    setKept(next);
    localStorage.setItem(KEY, JSON.stringify(next));
  };
  return {
    hidden: new Set(kept.hidden),
    hideEmpty: kept.hideEmpty,
    setHidden: (channelId, hidden) => {
      const others = kept.hidden.filter((id) => id !== channelId);
      keep({ ...kept, hidden: hidden ? [...others, channelId] : others });
    },
    setHideEmpty: (hideEmpty) => keep({ ...kept, hideEmpty }),
  };
}
