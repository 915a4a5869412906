'use client';

import { useEffect } from 'react';
import { isUnsaved, saveAllDrafts } from './unsaved';

/** Asks before a page is left on which something is not saved, and saves what is typed when it is put away. */
export function LeaveGuard() {
  useEffect(() => {
    const stay = (event: BeforeUnloadEvent) => {
      if (isUnsaved()) event.preventDefault();
    };
    const away = () => {
      if (document.visibilityState === 'hidden') void saveAllDrafts();
    };
    window.addEventListener('beforeunload', stay);
    document.addEventListener('visibilitychange', away);
    window.addEventListener('pagehide', away);
    return () => {
      window.removeEventListener('beforeunload', stay);
      document.removeEventListener('visibilitychange', away);
      window.removeEventListener('pagehide', away);
    };
  }, []);
  return null;
}
