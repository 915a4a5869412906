'use client';

import { useEffect } from 'react';
import type { NoticesView } from '@/desk/notices/look-at-notices';
import { ask } from './ask';
import { hearChanges } from './change-stream';

const SHOWN_KEY = 'last notice shown';

/** Shows what is new since the last that any page of this browser has shown. */
async function showNew(): Promise<void> {
  const { notices } = await ask<NoticesView>('/api/notices?for=browser');
  const last = Number(localStorage.getItem(SHOWN_KEY) ?? Number.POSITIVE_INFINITY);
  const [newest] = notices;
  if (newest) localStorage.setItem(SHOWN_KEY, String(newest.id));
  for (const { id, video, channel, says, dropId } of notices.filter((notice) => notice.id > last)) {
    // One tag, one notice: of several pages, the last one that shows it takes the place of the others.
    const shown = new Notification(`${video} on ${channel}`, { body: says, tag: `kettle ${id}` });
    shown.onclick = () => {
      window.focus();
      window.location.assign(`/drops/${dropId}`);
    };
  }
}

/** Lets the browser say what is new, where a person has switched that on and the browser permits it. */
export function useBrowserNotices(on: boolean): void {
  useEffect(() => {
    if (!on || typeof Notification === 'undefined' || Notification.permission !== 'granted') return;
    const quietly = () => void showNew().catch(() => undefined);
    // From here on: what came before is in the list.
    quietly();
    return hearChanges({
      changed: (about) => {
        if (about.some((each) => /^notices:\d+$/.test(each))) quietly();
      },
      line: () => undefined,
    });
  }, [on]);
}
