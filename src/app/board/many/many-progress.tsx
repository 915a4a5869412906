'use client';

import { useQuery, useQueryClient } from '@tanstack/react-query';
import Link from 'next/link';
import { useState } from 'react';
import type { ManyView } from '@/desk/many/ask-many';
import { ask } from '@/ui/ask';
import { Button } from '@/ui/button';
import { BUTTONS } from '@/ui/button-words';
import { actWords } from '@/ui/many/act-words';
import { Meter } from '@/ui/meter';
import { useNotices } from '@/ui/notices';

const LOOK_EVERY_MILLISECONDS = 700;

const videos = (number: number) => `${number.toLocaleString('en')} ${number === 1 ? 'video' : 'videos'}`;

const isGoingOn = (state: ManyView['state']): state is 'waiting' | 'undoing' | 'paused' =>
  state === 'waiting' || state === 'undoing' || state === 'paused';

/** In how many seconds the last of what was opened opens; it is asked for anew meanwhile, so that this counts. */
function OpensIn({ until, what }: { until: string; what: string }) {
  const seconds = Math.max(0, Math.ceil((Date.parse(until) - Date.now()) / 1000));
  return `Opens in ${seconds} s: ${what}`;
}

/** What is being done with many videos, how far it is, and how to take it back; the newest until it is put away. */
export function ManyProgress() {
  const client = useQueryClient();
  const { say, trouble } = useNotices();
  const [away, setAway] = useState<string>();
  const { data } = useQuery({
    queryKey: ['many'],
    queryFn: () => ask<ManyView[]>('/api/many'),
    refetchInterval: ({ state }) =>
      state.data?.some((act) => (isGoingOn(act.state) && act.state !== 'paused') || act.opensUntil)
        ? LOOK_EVERY_MILLISECONDS
        : false,
  });
  const newest = data?.find(({ state, endedLately }) => isGoingOn(state) || endedLately);
  if (!newest || newest.id === away) return null;
  const { id, act, state, done, failed, failedInAll, changed, undone, kept, mayUndo, mayStop, opensUntil } = newest;
  const words = actWords(act);
  const asks = async (path: 'undo' | 'stop' | 'pause' | 'go') => {
    try {
      const { notOpened = 0 } = await ask<{ notOpened?: number }>(`/api/many/${id}/${path}`, { method: 'POST' });
      if (notOpened > 0)
        say(`Stopped: not opened in ${notOpened.toLocaleString('en')} ${notOpened === 1 ? 'place' : 'places'}.`);
    } catch (error) {
      trouble(error);
    }
    await client.invalidateQueries({ queryKey: ['many'] });
  };
  const stop = mayStop && (
    <Button look="quiet" onClick={() => void asks('stop')}>
      {BUTTONS.stop}
    </Button>
  );
  if (isGoingOn(state)) {
    const [behind, all] = state === 'undoing' ? [undone + kept, changed] : [done, newest.videos];
    const doing = state === 'undoing' ? 'Undoing' : state === 'paused' ? `Paused: ${words.doing}` : words.doing;
    return (
      <section aria-label="Many videos" className="tray mb-3 flex items-center gap-4 px-4 py-2.5">
        <div className="grow">
          <Meter
            share={behind / Math.max(1, all)}
            says={`${doing} · ${behind.toLocaleString('en')} of ${videos(all)}`}
          />
        </div>
        {state !== 'undoing' && (
          <Button look="quiet" onClick={() => void asks(state === 'paused' ? 'go' : 'pause')}>
            {state === 'paused' ? BUTTONS.goOn : BUTTONS.pause}
          </Button>
        )}
        {stop}
      </section>
    );
  }
  const ended = {
    done: `${words.done}: ${videos(changed)}`,
    stopped:
      act.do === 'open'
        ? 'Stopped. What had not opened stays closed.'
        : `Stopped after ${done.toLocaleString('en')} of ${videos(newest.videos)}`,
    undone: `Undone on ${videos(undone)}.${kept > 0 ? ` ${videos(kept)} were changed since and stay.` : ''}`,
  }[state];
  return (
    <section aria-label="Many videos" className="tray mb-3 grid gap-1.5 px-4 py-2.5 text-sm">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <p role="status">
          {opensUntil ? <OpensIn until={opensUntil} what={videos(changed)} /> : ended}
          {failedInAll > 0 && <b className="text-snag"> ▲ not done: {videos(failedInAll)}</b>}
        </p>
        {stop}
        {mayUndo && (
          <Button look="quiet" onClick={() => void asks('undo')}>
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
