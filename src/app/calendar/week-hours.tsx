'use client';

import { useDroppable } from '@dnd-kit/core';
import { format, getHours, isToday, setHours } from 'date-fns';
import { useEffect, useRef } from 'react';
import type { FreePlace } from '@/desk/views/views';
import { dayKey, type Opening } from './days';
import { OpeningLine } from './opening-line';
import { PlaceLine } from './place-line';

const HOURS = Array.from({ length: 24 }, (_, hour) => hour);
/** Where the day is looked at from. */
const MORNING = 7;

interface WeekHoursProps {
  days: readonly Date[];
  openings: ReadonlyMap<string, Opening[]>;
  places: ReadonlyMap<string, FreePlace[]>;
  near: (opening: Opening) => string;
  onMove: (opening: Opening, to: Date) => void;
}

/** A week by its hours, each with what opens in it. */
export function WeekHours({ days, openings, places, near, onMove }: WeekHoursProps) {
  const box = useRef<HTMLDivElement>(null);
  const morning = useRef<HTMLDivElement>(null);
  // What opens in the night is seen, too.
  const shown = days.flatMap((day) => openings.get(dayKey(day)) ?? []);
  const first = Math.min(MORNING, ...shown.map(({ at }) => getHours(at)));
  // biome-ignore lint/correctness/useExhaustiveDependencies: once for each hour that it begins with, wherever it was scrolled since
  useEffect(() => {
    if (box.current && morning.current) box.current.scrollTop = morning.current.offsetTop - box.current.offsetTop;
  }, [first]);
  return (
    <div className="enamel overflow-x-auto">
      <div className="min-w-[820px]">
        <div className="grid grid-cols-[48px_repeat(7,minmax(0,1fr))] border-line border-b">
          <span />
          {days.map((day) => (
            <span key={dayKey(day)} className={`px-2 py-1.5 text-[13px] ${isToday(day) ? 'font-bold' : 'text-soft'}`}>
              {format(day, 'EEEE d')}
            </span>
          ))}
        </div>
        {/* biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls has to be reached by keys (WCAG 2.1.1) */}
        <div ref={box} tabIndex={0} className="max-h-[620px] overflow-y-auto">
          {HOURS.map((hour) => (
            <div
              key={hour}
              ref={hour === first ? morning : undefined}
              className="grid grid-cols-[48px_repeat(7,minmax(0,1fr))] border-line not-first:border-t"
            >
              <span className="px-1.5 py-1 text-right font-mono text-[12px] text-soft">
                {String(hour).padStart(2, '0')}:00
              </span>
              {days.map((day) => (
                <Hour
                  key={dayKey(day)}
                  at={setHours(day, hour)}
                  openings={(openings.get(dayKey(day)) ?? []).filter(({ at }) => getHours(at) === hour)}
                  places={(places.get(dayKey(day)) ?? []).filter(({ at }) => getHours(new Date(at)) === hour)}
                  near={near}
                  onMove={onMove}
                />
              ))}
            </div>
          ))}
        </div>
      </div>
    </div>
  );
}

interface HourProps extends Pick<WeekHoursProps, 'onMove' | 'near'> {
  at: Date;
  openings: readonly Opening[];
  places: readonly FreePlace[];
}

function Hour({ at, openings, places, near, onMove }: HourProps) {
  const { setNodeRef, isOver } = useDroppable({ id: `hour ${at.toISOString()}`, data: { hour: at } });
  return (
    <section
      ref={setNodeRef}
      aria-label={format(at, 'EEEE d MMMM HH:mm')}
      className={`min-h-[34px] border-line border-l p-0.5 ${isOver ? 'bg-copper-wash' : ''}`}
    >
      {openings.map((opening) => (
        <OpeningLine key={opening.key} opening={opening} near={near(opening)} onMove={onMove} />
      ))}
      {places.map((place) => (
        <PlaceLine key={`${place.seriesId} ${place.at}`} place={place} />
      ))}
    </section>
  );
}
