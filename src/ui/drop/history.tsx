'use client';

import { useState } from 'react';
import type { SheetChannel } from '@/desk/views/views';
import { useZone } from '../moment';

/** What happens by itself needs no name. */
const OURS = 'Kettle Drop';

type Told = SheetChannel['events'][number] & { channel: string };

/** What happened to the drops of a video, day by day, the newest first; of all channels or of one. */
export function History({ channels }: { channels: readonly SheetChannel[] }) {
  const [only, setOnly] = useState('');
  const zone = useZone();
  const sent = channels.filter(({ events }) => events.length > 0);
  const told = sent
    .filter(({ id }) => only === '' || id === only)
    .flatMap(({ name, events }): Told[] => events.map((event) => ({ ...event, channel: name })))
    .sort((a, b) => b.at.localeCompare(a.at) || b.id - a.id);
  const day = new Intl.DateTimeFormat('en-GB', { weekday: 'long', day: 'numeric', month: 'long', timeZone: zone });
  const time = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit', timeZone: zone });
  const full = new Intl.DateTimeFormat('en-GB', { dateStyle: 'full', timeStyle: 'long', timeZone: zone });
  const days = new Map<string, Told[]>();
  for (const event of told) {
    const on = day.format(new Date(event.at));
    days.set(on, [...(days.get(on) ?? []), event]);
  }
  return (
    <div className="grid gap-3 text-sm">
      {sent.length > 1 && (
        <fieldset className="flex flex-wrap gap-1.5">
          <legend className="sr-only">Which channel</legend>
          {[{ id: '', name: 'All channels' }, ...sent].map(({ id, name }) => (
            <button
              key={id}
              type="button"
              aria-pressed={id === only}
              onClick={() => setOnly(id)}
              className={`min-h-7 rounded-full border px-3 text-[13px] ${id === only ? 'border-rim bg-held-wash font-semibold' : 'border-edge hover:bg-sunk'}`}
            >
              {name}
            </button>
          ))}
        </fieldset>
      )}
      {[...days].map(([on, events]) => (
        <section key={on}>
          <h3>{on}</h3>
          <ol>
            {events.map(({ id, at, kind, says, by, channel }) => (
              <li
                key={id}
                className={`grid grid-cols-[48px_minmax(0,1fr)] gap-x-3 border-line border-t py-1 ${channels.length > 1 ? 'sm:grid-cols-[48px_150px_minmax(0,1fr)]' : ''}`}
              >
                <time dateTime={at} data-tip={full.format(new Date(at))} className="text-soft">
                  {time.format(new Date(at))}
                </time>
                {channels.length > 1 && <span className="truncate text-soft">{channel}</span>}
                <span className={`[overflow-wrap:anywhere] ${channels.length > 1 ? 'max-sm:col-start-2' : ''}`}>
                  {kind === 'snag' && <b className="text-snag">▲ </b>}
                  {says}
                  {by !== OURS && <span className="text-soft"> · {by}</span>}
                </span>
              </li>
            ))}
          </ol>
        </section>
      ))}
    </div>
  );
}
