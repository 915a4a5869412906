'use client';

import { createContext, type ReactNode, useContext, useState } from 'react';
import { isTyping } from '@/ui/typing';
import { useKeys } from '@/ui/use-keys';
import { KeyList } from './key-list';
import { SECTIONS } from './sections/sections';
import { useSections } from './sections/sections-provider';

const Context = createContext({ showKeys: () => {} });

/** How the list of keys is shown. */
export const useSheetKeys = () => useContext(Context);

/** The id of where the video goes, for keys and skip links. */
export const RAIL_ID = 'where-it-goes';
/** The id of the button that sends. */
export const SEND_ID = 'send';

/** The keys of the whole Sheet: to its sections, to where it goes, to send, and the list of all keys. */
export function SheetKeys({ children }: { children: ReactNode }) {
  const [shown, setShown] = useState(false);
  const { states, goToSection } = useSections();
  useKeys((event) => {
    const meant = event.ctrlKey || event.metaKey;
    if (document.querySelector('[role=dialog], [role=alertdialog], [role=menu], [role=listbox]') || event.altKey)
      return;
    if (meant && event.key === 'Enter') {
      document.getElementById(SEND_ID)?.click();
    } else if (meant || isTyping(event.target)) {
      return;
    } else if (event.key === '?') {
      setShown(true);
    } else if (event.key.toLowerCase() === 'w') {
      document.getElementById(RAIL_ID)?.focus();
    } else {
      const id = SECTIONS[Number(event.key) - 1];
      if (!/^[1-9]$/.test(event.key) || !id || !states[id].used) return;
      goToSection(id);
    }
    event.preventDefault();
  });
  return (
    <Context.Provider value={{ showKeys: () => setShown(true) }}>
      {children}
      <KeyList open={shown} onOpenChange={setShown} />
    </Context.Provider>
  );
}
