'use client';

import { STOP_WORDS } from '@/core/drop';
import type { DropPageView } from '@/desk/views/drop-page';
import { Moment } from '@/ui/moment';
import { LOOK_COLOURS, lookOf } from '@/ui/stops';

/** The six stops side by side, each with when it was passed. */
export function StopLine({ view }: { view: DropPageView }) {
  const { drop } = view.channel;
  if (!drop) return null;
  const look = lookOf(drop);
  return (
    <ol aria-label="Steps" className="grid grid-cols-2 gap-y-3 sm:grid-cols-6">
      {view.stops.map(({ stop, at }, index) => {
        const behind = index < drop.stops;
        const next = index === drop.stops && look !== 'idle';
        const sign = behind ? '●' : next && look === 'snag' ? '▲' : next && look === 'held' ? '❚❚' : '○';
        return (
          <li key={stop} className="min-w-0 border-edge border-t-2 pt-1.5 pr-2">
            <b
              className={`block font-semibold ${next || (behind && look !== 'snag') ? LOOK_COLOURS[look] : behind ? '' : 'text-soft'}`}
            >
              <span aria-hidden>{sign} </span>
              {STOP_WORDS[stop]}
              <span className="sr-only">{behind ? ', done' : next ? ', comes next' : ', not yet'}</span>
            </b>
            <span className="text-[13px] text-soft tabular-nums">
              {at ? <Moment at={at} /> : next ? look === 'snag' ? 'waits for you' : 'next' : ''}
            </span>
          </li>
        );
      })}
    </ol>
  );
}
