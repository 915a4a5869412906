'use client';

import { useQuery, useQueryClient } from '@tanstack/react-query';
import Link from 'next/link';
import { useState } from 'react';
import type { ManyView } from '@/desk/many/ask-many';
import { ask } from '@/ui/ask';
import { Button } from '@/ui/button';
import { BUTTONS } from '@/ui/button-words';
import { Meter } from '@/ui/meter';
import { useNotices } from '@/ui/notices';
import { actWords } from './act-words';

const LOOK_EVERY_MILLISECONDS = 700;

const videos = (number: number) => `${number.toLocaleString('en')} ${number === 1 ? 'video' : 'videos'}`;

/** What is being done with many videos, how far it is, and how to take it back; the newest until it is put away. */
export function ManyProgress() {
  const client = useQueryClient();
  const { say, trouble } = useNotices();
  const [away, setAway] = useState<string>();
  const { data } = useQuery({
    queryKey: ['many'],
    queryFn: () => ask<ManyView[]>('/api/many'),
    refetchInterval: ({ state }) =>
      state.data?.some((act) => act.state === 'waiting') ? LOOK_EVERY_MILLISECONDS : false,
  });
  const newest = data?.find(({ state, endedLately }) => state === 'waiting' || endedLately);
  if (!newest || newest.id === away || newest.state === 'undone') return null;
  const { id, act, done, failed, failedInAll, changed, mayUndo } = newest;
  const words = actWords(act);
  const undo = async () => {
    try {
      const { undone, kept } = await ask<{ undone: number; kept: number }>(`/api/many/${id}/undo`, { method: 'POST' });
      say(`Undone on ${videos(undone)}.${kept > 0 ? ` ${videos(kept)} were changed since and stay.` : ''}`);
      await client.invalidateQueries({ queryKey: ['many'] });
    } catch (error) {
      trouble(error);
    }
  };
  if (newest.state === 'waiting') {
    return (
      <section aria-label="Many videos" className="tray mb-3 px-4 py-2.5">
        <Meter
          share={done / newest.videos}
          says={`${words.doing} · ${done.toLocaleString('en')} of ${videos(newest.videos)}`}
        />
      </section>
    );
  }
  return (
    <section aria-label="Many videos" className="tray mb-3 grid gap-1.5 px-4 py-2.5 text-sm">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <p role="status">
          {words.done}: {videos(changed)}
          {failedInAll > 0 && <b className="text-snag"> ▲ not done: {videos(failedInAll)}</b>}
        </p>
        {mayUndo && (
          <Button look="quiet" onClick={() => void undo()}>
            {BUTTONS.undo}
          </Button>
        )}
        <Button look="plain" className="ml-auto" onClick={() => setAway(id)}>
          {BUTTONS.close}
        </Button>
      </div>
      {failed.length > 0 && (
        <ul className="grid max-h-32 gap-0.5 overflow-y-auto text-[13px] [overflow-wrap:anywhere]">
          {failed.map(({ videoId, title, why }) => (
            <li key={videoId}>
              <Link href={`/videos/${videoId}`} className="textlink">
                {title || 'Without a title'}
              </Link>
              : {why}
            </li>
          ))}
          {failedInAll > failed.length && <li>and {failedInAll - failed.length} more</li>}
        </ul>
      )}
    </section>
  );
}
