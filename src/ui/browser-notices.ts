'use client';

import { useEffect } from 'react';
import type { BrowserNoticesView, NoticeView } from '@/desk/views/look-at-notices';
import { ask } from './ask';
import { hearChanges } from './change-stream';

const SHOWN_KEY = 'last notice shown';
/** So many are shown one by one; more, as after a quiet night, would bury the screen. */
const MOST_SINGLE = 3;

/** One tag, one notice: of several pages, the last one that shows it takes the place of the others. */
function show(title: string, body: string, tag: string, leadsTo: string): void {
  const shown = new Notification(title, { body, tag });
  shown.onclick = () => {
    window.focus();
    window.location.assign(leadsTo);
  };
}

function showAll(notices: readonly NoticeView[]): void {
  if (notices.length <= MOST_SINGLE) {
    for (const { id, video, channel, says, leadsTo } of notices.toReversed()) {
      show(channel ? `${video} on ${channel}` : video, says, `kettle ${id}`, leadsTo);
    }
    return;
  }
  const need = notices.filter(({ kind }) => kind !== 'live' && kind !== 'done').length;
  const titles = [...new Set(notices.map(({ video }) => video))].join(', ');
  show(`${notices.length} notices${need > 0 ? `, ${need} to look at` : ''}`, titles, 'kettle many', '/notices');
}

/**
 * Shows what is new since the last that any page of this browser has shown; what came before the first is in the list.
 * @returns milliseconds until quiet hours are over, where they hold
 */
async function showNew(): Promise<number | undefined> {
  const { notices, upTo, quietMilliseconds } = await ask<BrowserNoticesView>('/api/notices?for=browser');
  const last = localStorage.getItem(SHOWN_KEY);
  // In quiet hours the mark stays where it is: what comes in them is said after them.
  if (last === null || quietMilliseconds === undefined) localStorage.setItem(SHOWN_KEY, String(upTo));
  if (last !== null) showAll(notices.filter(({ id }) => id > Number(last)));
  return quietMilliseconds;
}

/** Lets the browser say what is new, where a person has switched that on and the browser permits it. */
export function useBrowserNotices(on: boolean): void {
  useEffect(() => {
    if (!on || typeof Notification === 'undefined') return;
    let afterQuiet: ReturnType<typeof setTimeout> | undefined;
    const quietly = async () => {
      // Asked each time: it may be permitted, or forbidden, while the page is open.
      if (Notification.permission !== 'granted') return;
      const wait = await showNew().catch(() => undefined);
      clearTimeout(afterQuiet);
      if (wait !== undefined) afterQuiet = setTimeout(() => void quietly(), wait + 1000);
    };
    void quietly();
    const end = hearChanges({
      changed: (about) => {
        if (about.some(([each]) => /^notices:(\d+|settings)$/.test(each))) void quietly();
      },
      line: (_is, gap) => {
        if (gap) void quietly();
      },
    });
    return () => {
      clearTimeout(afterQuiet);
      end();
    };
  }, [on]);
}
