'use client';

import { useDroppable } from '@dnd-kit/core';
import { endOfDay, format, isPast, isSameMonth, isToday } from 'date-fns';
import type { FreePlace } from '@/desk/views/views';
import { dayKey, type Opening } from './days';
import { OpeningLine } from './opening-line';
import { PlaceLine } from './place-line';

const COLUMNS = 7;

interface DayGridProps {
  days: readonly Date[];
  /** The day that is looked at: days of other months are quieter. */
  around: Date;
  openings: ReadonlyMap<string, Opening[]>;
  places: ReadonlyMap<string, FreePlace[]>;
  near: (opening: Opening) => string;
  onMove: (opening: Opening, to: Date) => void;
}

/** The weeks, by their places, that are over and in which nothing opened: they leave the room to the others. */
function weeksOver(days: readonly Date[], openings: DayGridProps['openings']): Set<number> {
  const weeks = Array.from({ length: days.length / COLUMNS }, (_, week) => week);
  const ofWeek = (week: number) => days.slice(week * COLUMNS, (week + 1) * COLUMNS);
  return new Set(weeks.filter((week) => ofWeek(week).every((day) => isBeforeToday(day) && !openings.has(dayKey(day)))));
}

const isBeforeToday = (day: Date) => isPast(endOfDay(day));

/** Days in weeks, each with what opens on it. */
export function DayGrid({ days, around, openings, places, near, onMove }: DayGridProps) {
  const over = weeksOver(days, openings);
  return (
    <div className="enamel overflow-x-auto">
      <div className="grid min-w-[760px] grid-cols-7">
        {days.slice(0, COLUMNS).map((day) => (
          <div key={dayKey(day)} aria-hidden className="border-line border-b px-2 py-1.5 text-[13px] text-soft">
            {format(day, 'EEEE')}
          </div>
        ))}
        {days.map((day, index) => (
          <Day
            key={dayKey(day)}
            day={day}
            low={over.has(Math.floor(index / COLUMNS))}
            quiet={!isSameMonth(day, around)}
            openings={openings.get(dayKey(day)) ?? []}
            places={places.get(dayKey(day)) ?? []}
            near={near}
            onMove={onMove}
          />
        ))}
      </div>
    </div>
  );
}

interface DayProps extends Pick<DayGridProps, 'onMove' | 'near'> {
  day: Date;
  /** Whether its week is over and nothing opened in it. */
  low: boolean;
  quiet: boolean;
  openings: readonly Opening[];
  places: readonly FreePlace[];
}

function Day({ day, low, quiet, openings, places, near, onMove }: DayProps) {
  const { setNodeRef, isOver } = useDroppable({ id: dayKey(day), data: { day } });
  return (
    <section
      ref={setNodeRef}
      aria-label={format(day, 'EEEE d MMMM')}
      className={`border-line border-r border-b p-1 [&:nth-child(7n)]:border-r-0 ${low ? '' : 'min-h-[82px]'} ${quiet ? 'bg-paper' : ''} ${isOver ? 'bg-copper-wash' : ''}`}
    >
      <p className={`px-1.5 text-[13px] tabular-nums ${isToday(day) ? 'font-bold' : 'text-soft'}`}>
        {format(day, day.getDate() === 1 ? 'd MMM' : 'd')}
        {isToday(day) && ' · today'}
      </p>
      {openings.map((opening) => (
        <OpeningLine key={opening.key} opening={opening} near={near(opening)} onMove={onMove} />
      ))}
      {places.map((place) => (
        <PlaceLine key={`${place.seriesId} ${place.at}`} place={place} />
      ))}
    </section>
  );
}
