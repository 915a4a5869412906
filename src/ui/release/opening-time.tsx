'use client';

import { useQuery, useQueryClient } from '@tanstack/react-query';
import { CalendarDays } from 'lucide-react';
import dynamic from 'next/dynamic';
import { useEffect, useState } from 'react';
import type { SiteRules } from '@/core/delivery';
import { clock, dayOf, fromNow, shownIn } from '@/core/release/in-words';
import type { Moment } from '@/core/release/moment';
import type { SaidChoice, SaidTime } from '@/core/release/said-time';
import { siteDates } from '@/core/release/site-dates';
import { ask } from '../ask';
import { Button } from '../button';
import { FIELD_LOOK } from '../fields/field-row';
import { PopButton } from '../pop-button';

const DayChoice = dynamic(() => import('../fields/day-choice').then((part) => part.DayChoice));

/** So long after the last key a text is read. */
const READ_AFTER_MILLISECONDS = 250;
const TICK_MILLISECONDS = 20_000;
const PLAIN_CLOCK = '18:00';

interface OpeningTimeProps {
  id: string;
  value: Moment | null;
  onChange: (moment: Moment) => void;
  /** The sites that it is for, each once. */
  sites: readonly SiteRules[];
}

const here = () => Intl.DateTimeFormat().resolvedOptions().timeZone;
const inWords = ({ wall }: Moment) => `${dayOf(wall)}, ${clock(wall)}`;

const asked = (text: string, zone: string) => ({
  queryKey: ['when', text, zone],
  queryFn: () => ask<SaidTime>(`/api/when?${new URLSearchParams({ text, zone })}`),
});

/** When a video opens: typed or picked, seen in the manager's time and in each site's. */
export function OpeningTime({ id, value, onChange, sites }: OpeningTimeProps) {
  const [typed, setTyped] = useState<string>();
  // What was typed, once no key has been pressed for a moment.
  const [paused, setPaused] = useState('');
  const client = useQueryClient();
  const { data: said } = useQuery({ ...asked(paused, here()), enabled: paused.trim() !== '' });
  // The server works it out, by the rules of the zone.
  const { data: kept } = useQuery({ ...asked(value?.wall ?? '', value?.zone ?? ''), enabled: value !== null });
  const instant = kept && (kept.instant ?? kept.choices[value?.which === 'second' ? 1 : 0]?.instant);
  const now = useNow();
  useEffect(() => {
    const timer = setTimeout(() => setPaused(typed ?? ''), READ_AFTER_MILLISECONDS);
    return () => clearTimeout(timer);
  }, [typed]);
  const take = (moment: Moment) => {
    onChange(moment);
    setTyped(undefined);
  };
  const commit = async (text: string | undefined) => {
    if (text === undefined || text.trim() === '') return setTyped(undefined);
    const { instant: at, wall, zone, findings } = await client.fetchQuery(asked(text, here()));
    if (at && wall && findings.length === 0) take({ wall, zone });
    else setPaused(text);
  };
  const isTyping = typed !== undefined;
  const zone = isTyping ? here() : (value?.zone ?? here());
  const shown = isTyping ? (paused === typed ? said?.instant : undefined) : instant;
  return (
    <div className="grid gap-1.5">
      <div className="flex flex-wrap items-center gap-2">
        <input
          id={id}
          value={typed ?? (value ? inWords(value) : '')}
          onChange={(event) => setTyped(event.target.value)}
          onFocus={(event) => event.target.select()}
          onBlur={() => void commit(typed)}
          onKeyDown={(event) => {
            if (event.key === 'Enter') void commit(typed);
            if (event.key === 'Escape') setTyped(undefined);
          }}
          placeholder="fri 9:00, in 2 h, 28 nov 18:30"
          autoComplete="off"
          className={`${FIELD_LOOK} w-64`}
        />
        <PopButton
          button={{
            className: 'inline-flex min-h-8 items-center rounded-lg border border-edge bg-card px-2.5 py-2',
            children: (
              <>
                <CalendarDays size={16} className="text-soft" aria-hidden />
                <span className="sr-only">Choose the day it opens</span>
              </>
            ),
          }}
          panel={{ label: 'Choose the day it opens', align: 'start', className: 'p-3' }}
        >
          {(close) => (
            <DayChoice
              day={value?.wall.slice(0, 10) ?? ''}
              language={navigator.language}
              onChoose={(day) => {
                close();
                const text = `${day} ${value ? clock(value.wall) : PLAIN_CLOCK}`;
                setTyped(text);
                void commit(text);
              }}
            />
          )}
        </PopButton>
      </div>
      {isTyping && paused === typed && said && (
        <Findings
          said={said}
          onChoose={({ moment }) => {
            if (moment.which) return take(moment);
            // The other order of a date may come twice, or be over, in its turn.
            const text = moment.wall.replace('T', ' ');
            setTyped(text);
            void commit(text);
          }}
        />
      )}
      {shown && <SeenThere instant={new Date(shown)} zone={zone} now={now} sites={sites} />}
    </div>
  );
}

/** What is wrong with a typed time; where it may be one of two, both to choose from. */
function Findings({ said, onChoose }: { said: SaidTime; onChoose: (choice: SaidChoice) => void }) {
  const { findings, choices } = said;
  return (
    <div role="status" className="grid gap-1.5 text-[13px] empty:hidden">
      {findings.map((finding) => (
        <p key={finding}>
          <b className="text-snag">▲ </b>
          {finding}
        </p>
      ))}
      {choices.length > 0 && (
        <div className="flex flex-wrap gap-2">
          {choices.map((choice) => (
            <Button key={choice.instant} onClick={() => onChoose(choice)}>
              {choice.says}
            </Button>
          ))}
        </div>
      )}
    </div>
  );
}

/** A moment in the manager's time, from now, and in the time of each site that prints a date. */
function SeenThere({
  instant,
  zone,
  now,
  sites,
}: { instant: Date; zone: string; now: Date } & Pick<OpeningTimeProps, 'sites'>) {
  const dates = siteDates(instant, zone, sites);
  const mine = shownIn(zone, instant);
  return (
    <div className="grid gap-0.5 text-[13px] text-soft">
      <p>
        {mine} in {zone} · {fromNow(instant, now)}
      </p>
      {zone !== here() && <p>Where you are: {shownIn(here(), instant)}</p>}
      {dates.map(({ site, zone: there, date, otherDay }) => (
        <p key={site} className={otherDay ? 'text-ink' : ''}>
          {otherDay && <b className="text-snag">▲ </b>}
          {there === null ? `${site} prints the date of whoever looks` : `${site} prints ${dayOf(date, false)}`}
          {there !== null && `, as it is ${shownIn(there, instant).split(', ').at(-1)} there`}
          {otherDay && `: another day than yours, ${dayOf(localDay(zone, instant), false)}`}
        </p>
      ))}
    </div>
  );
}

const localDay = (zone: string, instant: Date) =>
  siteDates(instant, zone, [{ name: '', printsDateIn: zone }])[0]?.date ?? '';

function useNow(): Date {
  const [now, setNow] = useState(() => new Date());
  useEffect(() => {
    const timer = setInterval(() => setNow(new Date()), TICK_MILLISECONDS);
    return () => clearInterval(timer);
  }, []);
  return now;
}
