'use client';

import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { tellChangedVideos } from './changed-videos';
import { useUnsaved } from './saving/unsaved';

const AT_MOST_EVERY_MILLISECONDS = 400;
const LONGEST_AGO = 10 * 60_000;

/** Hears of changes by server-sent events and lets what shows them be read again. Says where the line is gone. */
export function LiveChanges() {
  const client = useQueryClient();
  const [lost, setLost] = useState(false);
  const { drafts, underWay } = useUnsaved();
  useEffect(() => {
    const pending = new Set<string>();
    let timer: ReturnType<typeof setTimeout> | undefined;
    const flush = () => {
      timer = undefined;
      if ([...pending].some((about) => /^(?:channels|layers):/.test(about))) void client.invalidateQueries();
      if ([...pending].some((about) => about.startsWith('sites:'))) {
        void client.invalidateQueries({ queryKey: ['sites'] });
      }
      const videos = [...pending].filter((about) => about.startsWith('video:')).map((about) => about.slice(6));
      for (const id of videos) void client.invalidateQueries({ queryKey: ['sheet', id] });
      if (videos.length > 0) tellChangedVideos(videos);
      pending.clear();
    };
    // The page was read some time ago; what has changed since is told first.
    const ago = Math.min(LONGEST_AGO, Math.ceil(performance.now()) + 1000);
    const source = new EventSource(`/api/changes?ago=${ago}`);
    source.addEventListener('change', (event) => {
      for (const about of JSON.parse(event.data) as string[]) pending.add(about);
      timer ??= setTimeout(flush, AT_MOST_EVERY_MILLISECONDS);
    });
    let opened = false;
    source.addEventListener('open', () => {
      setLost(false);
      // What changed while the line was gone is read now.
      if (opened) void client.invalidateQueries();
      opened = true;
    });
    source.addEventListener('error', () => setLost(true));
    return () => {
      source.close();
      clearTimeout(timer);
    };
  }, [client]);
  if (!lost) return null;
  return (
    <p role="status" className="bg-snag-wash px-7 py-2 text-sm">
      <b className="text-snag">▲ </b>Kettle Drop does not answer at the moment. This page goes on by itself when it does
      {drafts + underWay > 0 ? '; what you changed is kept here and saved then' : ''}.
    </p>
  );
}
