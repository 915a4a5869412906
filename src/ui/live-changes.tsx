'use client';

import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { hearChanges } from './change-stream';
import { tellChangedVideos } from './changed-videos';
import { isReadSince } from './own-changes';
import { useUnsaved } from './saving/unsaved';

const AT_MOST_EVERY_MILLISECONDS = 400;
const MOST_WAITS = 5;

/** Lets what shows something that has changed be read again. Says where the line is gone. */
export function LiveChanges() {
  const client = useQueryClient();
  const [lost, setLost] = useState(false);
  const { drafts, underWay } = useUnsaved();
  const saving = useRef(underWay);
  saving.current = underWay;
  useEffect(() => {
    const pending = new Map<string, readonly number[]>();
    let timer: ReturnType<typeof setTimeout> | undefined;
    let waited = 0;
    const flush = () => {
      // A save that is under way tells with its answer which of these are its own.
      if (saving.current > 0 && waited < MOST_WAITS) {
        waited += 1;
        timer = setTimeout(flush, AT_MOST_EVERY_MILLISECONDS);
        return;
      }
      [timer, waited] = [undefined, 0];
      const topics = [...pending.keys()];
      if (topics.some((about) => /^(?:channels|layers):/.test(about))) void client.invalidateQueries();
      if (topics.some((about) => about.startsWith('sites:'))) {
        void client.invalidateQueries({ queryKey: ['sites'] });
      }
      if (topics.some((about) => about.startsWith('notices:'))) {
        for (const key of ['notices', 'notice count', 'notice settings']) {
          void client.invalidateQueries({ queryKey: [key] });
        }
      }
      const videos = topics.filter((about) => about.startsWith('video:')).map((about) => about.slice(6));
      for (const id of videos) {
        const sheet = ['sheet', id];
        if (!isReadSince(pending.get(`video:${id}`) ?? [], sheet)) void client.invalidateQueries({ queryKey: sheet });
        void client.invalidateQueries({ queryKey: ['missing', id] });
        void client.invalidateQueries({ queryKey: ['drop', id] });
      }
      if (videos.length > 0) {
        // A Board that is not shown is read anew when it is; one that is shown reads the rows that have changed.
        void client.invalidateQueries({ queryKey: ['board'], refetchType: 'none' });
        void client.invalidateQueries({ queryKey: ['board-counts'], refetchType: 'none' });
        void client.invalidateQueries({ queryKey: ['calendar'] });
        tellChangedVideos(videos);
      }
      pending.clear();
    };
    const unhear = hearChanges({
      changed(about) {
        for (const [each, ids] of about) {
          const before = pending.get(each);
          // No numbers stand for many: none of them is known then.
          const known = ids.length > 0 && (!before || before.length > 0);
          pending.set(each, known ? [...(before ?? []), ...ids] : []);
        }
        timer ??= setTimeout(flush, AT_MOST_EVERY_MILLISECONDS);
      },
      line(is, gap) {
        setLost(is === 'lost');
        // What changed while nobody heard of it is read now.
        if (gap) void client.invalidateQueries();
      },
    });
    return () => {
      unhear();
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
