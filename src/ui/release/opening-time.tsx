'use client';

import { useQuery, useQueryClient } from '@tanstack/react-query';
import { CalendarDays } from 'lucide-react';
import dynamic from 'next/dynamic';
import { useEffect, useState } from 'react';
import type { SiteRules } from '@/core/delivery';
import type { DateOrder } from '@/core/release/date-orders';
import { clock, dayOf, fromNow, shownIn } from '@/core/release/in-words';
import type { Moment } from '@/core/release/moment';
import type { SaidChoice, SaidTime } from '@/core/release/said-time';
import { siteDates } from '@/core/release/site-dates';
import { ask } from '../ask';
import { Button } from '../button';
import { FIELD_LOOK } from '../fields/field-row';
import { PopButton } from '../pop-button';
import { ZoneChoice } from './zone-choice';

const DayChoice = dynamic(() => import('../fields/day-choice').then((part) => part.DayChoice));

/** So long after the last key a text is read. */
const READ_AFTER_MILLISECONDS = 250;
const TICK_MILLISECONDS = 20_000;
const PLAIN_CLOCK = '18:00';
/** So many years a day can be chosen in, from this one on. */
const YEARS_AHEAD = 5;

interface OpeningTimeProps {
  id: string;
  value: Moment | null;
  onChange: (moment: Moment) => void;
  /** The sites that it is for, each once. */
  sites: readonly SiteRules[];
}

type SetOrder = Exclude<DateOrder, 'ask'>;
const OTHER_ORDER: Record<SetOrder, SetOrder> = { 'day first': 'month first', 'month first': 'day first' };

const here = () => Intl.DateTimeFormat().resolvedOptions().timeZone;
const inWords = ({ wall }: Moment) => `${dayOf(wall)}, ${clock(wall)}`;

const asked = (text: string, zone: string) => ({
  queryKey: ['when', text, zone],
  queryFn: () => ask<SaidTime>(`/api/when?${new URLSearchParams({ text, zone })}`),
});

/** When a video opens: typed or picked, in a zone of choice, seen in the manager's time and in each site's. */
export function OpeningTime({ id, value, onChange, sites }: OpeningTimeProps) {
  const [typed, setTyped] = useState<string>();
  // Until a time is taken that has a zone of its own.
  const [zoneChosen, setZoneChosen] = useState<string>();
  const zone = zoneChosen ?? value?.zone ?? here();
  // What was read by the order that is set, and may have been meant the other way.
  const [byOrder, setByOrder] = useState<{ text: string; order: SetOrder }>();
  // What was typed, once no key has been pressed for a moment.
  const [paused, setPaused] = useState('');
  const client = useQueryClient();
  const { data: said } = useQuery({ ...asked(paused, zone), enabled: paused.trim() !== '' });
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
    setZoneChosen(undefined);
  };
  const commit = async (text: string | undefined, inZone = zone) => {
    if (text === undefined || text.trim() === '') return setTyped(undefined);
    const { instant: at, wall, zone: said, which, findings, order } = await client.fetchQuery(asked(text, inZone));
    setByOrder(order && { text, order });
    if (at && wall && findings.length === 0) return take({ wall, zone: said, ...(which && { which }) });
    setTyped(text);
    setPaused(text);
  };
  /** Which of day and month comes first from now on; what was said by the other order is read anew. */
  const answerOrder = async (order: DateOrder) => {
    await ask('/api/when', { method: 'PUT', json: { order } });
    await client.invalidateQueries({ queryKey: ['when'] });
  };
  const chooseZone = (next: string) => {
    setZoneChosen(next);
    if (value) void commit(value.wall.replace('T', ' '), next);
  };
  const isTyping = typed !== undefined;
  const read = isTyping && paused === typed ? said : undefined;
  const shown = isTyping ? read?.instant : instant;
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
            if (event.key === 'Escape') {
              setTyped(undefined);
              setZoneChosen(undefined);
            }
          }}
          placeholder="fri 9:00, in 2 h, 28 nov 18:30"
          autoComplete="off"
          className={`${FIELD_LOOK} w-60`}
        />
        <ZoneChoice zone={zone} sites={sites} onChoose={chooseZone} />
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
              upTo={YEARS_AHEAD}
            />
          )}
        </PopButton>
      </div>
      {read && (
        <Findings
          said={read}
          onChoose={async ({ moment, order }) => {
            if (order) await answerOrder(order);
            if (moment.which) return take(moment);
            // The other order of a date may come twice, or be over, in its turn.
            const text = moment.wall.replace('T', ' ');
            setTyped(text);
            setZoneChosen(moment.zone);
            void commit(text, moment.zone);
          }}
        />
      )}
      {byOrder && !isTyping && (
        <p className="text-[13px] text-soft">
          Read with the {byOrder.order}.{' '}
          <button
            type="button"
            className="textlink"
            onClick={async () => {
              await answerOrder(OTHER_ORDER[byOrder.order]);
              await commit(byOrder.text);
            }}
          >
            Always read dates with the {OTHER_ORDER[byOrder.order]}
          </button>
        </p>
      )}
      {shown && <SeenThere instant={new Date(shown)} zone={read?.zone ?? zone} now={now} sites={sites} />}
    </div>
  );
}

/** What is wrong with a typed time; where it may be one of two, both to choose from. */
function Findings({ said, onChoose }: { said: SaidTime; onChoose: (choice: SaidChoice) => Promise<void> }) {
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
            <Button key={choice.instant} onClick={() => void onChoose(choice)}>
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
