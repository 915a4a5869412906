'use client';

import {
  type CollisionDetection,
  DndContext,
  DragOverlay,
  PointerSensor,
  pointerWithin,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import { useQuery } from '@tanstack/react-query';
import { addDays, format, startOfDay } from 'date-fns';
import { ChevronLeft, ChevronRight } from 'lucide-react';
import { useEffect, useId, useMemo, useRef, useState } from 'react';
import type { CalendarView } from '@/desk/views/views';
import { ask } from '@/ui/ask';
import { Button, buttonLook } from '@/ui/button';
import { BUTTONS } from '@/ui/button-words';
import { dragWords } from '@/ui/drag-words';
import { PopButton } from '@/ui/pop-button';
import { DayGrid } from './day-grid';
import { dayKey, daysOf, LOOKS, type Look, type Opening, openingsByDay, placesByDay, stepped } from './days';
import { OpeningInHand, OpeningLine, openingOn } from './opening-line';
import { Subscribe } from './subscribe';
import { TimesIn } from './times-in';
import { nearWords, tooNearTo } from './too-near';
import { movedOnto, useMoves } from './use-moves';
import { WeekHours } from './week-hours';

const CONCERNS = ['calendar'] as const;
const KEPT_AS = 'calendar look';

const CLICK_MILLISECONDS = 50;
/** Releases on a channel can be asked to lie so far apart. */
const LONGEST_APART_DAYS = 7;

/** What is dragged is a link: letting it go is no click on it. */
function letNoClickFollow(): void {
  const stop = (event: Event) => event.preventDefault();
  window.addEventListener('click', stop, { capture: true });
  setTimeout(() => window.removeEventListener('click', stop, { capture: true }), CLICK_MILLISECONDS);
}

/** A free place lies in its day: it is meant where the pointer is on it. */
const narrowest: CollisionDetection = (given) => {
  const hits = pointerWithin(given);
  const place = hits.find(({ id }) => String(id).startsWith('place '));
  return place ? [place] : hits;
};

/** A day, an hour or a free place, for those who hear it read out. */
const placeWords = ({ day, at, hour }: { day?: Date; at?: Date; hour?: Date }): string =>
  day ? format(day, 'EEEE d MMMM') : format(at ?? hour ?? new Date(), 'EEEE d MMMM, HH:mm');

const ANNOUNCED = dragWords({
  what: ({ data }) => `“${(data.current?.opening as Opening | undefined)?.entries[0]?.title || 'Without a title'}”`,
  where: ({ data }) => placeWords(data.current ?? {}),
});
const HOW_BY_KEYS = 'Move it by a day with Shift and left or right, by a week with Shift and up or down.';

/** What a look is called, by what it shows. */
function headOf(look: Look, days: readonly Date[], day: Date): string {
  const [first = day, last = day] = [days[0], days.at(-1)];
  if (look === 'month') return format(day, 'MMMM yyyy');
  return `${format(first, 'd MMM')} to ${format(last, 'd MMM yyyy')}`;
}

/** What goes out when, and what went out, on every channel. */
export function Calendar() {
  // Days are those of this machine's clock, which the server does not know.
  const [day, setDay] = useState<Date>();
  const [look, setLook] = useState<Look>('month');
  useEffect(() => {
    setDay(startOfDay(new Date()));
    const kept = localStorage.getItem(KEPT_AS);
    setLook(LOOKS.find((each) => each === kept) ?? (window.innerWidth < 640 ? 'list' : 'month'));
  }, []);
  return day && <Days day={day} look={look} onDay={setDay} onLook={setLook} />;
}

interface DaysProps {
  day: Date;
  look: Look;
  onDay: (day: Date) => void;
  onLook: (look: Look) => void;
}

function Days({ day, look, onDay, onLook }: DaysProps) {
  const dragId = useId();
  const days = useMemo(() => daysOf(look, day), [look, day]);
  // What opens before and after counts where it is too near.
  const from = addDays(days[0] ?? day, -LONGEST_APART_DAYS).toISOString();
  const to = addDays(days.at(-1) ?? day, 1 + LONGEST_APART_DAYS).toISOString();
  const { data } = useQuery({
    queryKey: ['calendar', from, to],
    queryFn: () => ask<CalendarView>(`/api/calendar?${new URLSearchParams({ from, to })}`),
    placeholderData: (before) => before,
  });
  const openings = useMemo(() => openingsByDay(data?.entries ?? []), [data]);
  const places = useMemo(() => placesByDay(data?.places ?? []), [data]);
  const { move, moveTo, mayUndo, undo } = useMoves(CONCERNS);
  const toFocus = useRef<string>(undefined);
  const moveByKeys = async (opening: Opening, onto: Date) => {
    const [first] = opening.entries;
    toFocus.current = first && openingOn(first.videoId, onto);
    const moved = await move(opening, onto);
    if (moved && !days.some((each) => dayKey(each) === dayKey(onto))) onDay(startOfDay(onto));
  };
  // On another day it is another line: who moves it by keys goes on with it.
  // biome-ignore lint/correctness/useExhaustiveDependencies: looked for whenever other lines may be there
  useEffect(() => {
    if (!toFocus.current || document.activeElement !== document.body) return;
    const line = document.querySelector<HTMLElement>(`[data-opening="${toFocus.current}"]`);
    if (!line) return;
    toFocus.current = undefined;
    line.focus();
  }, [openings]);
  const onKeys = (opening: Opening, onto: Date) => void moveByKeys(opening, onto);
  const [inHand, setInHand] = useState<Opening>();
  const [overIt, setOverIt] = useState<Date>();
  const near = (opening: Opening, at = opening.at) => nearWords(tooNearTo(opening, at, data?.entries ?? []));
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }));
  const show = (next: Look) => {
    localStorage.setItem(KEPT_AS, next);
    onLook(next);
  };
  return (
    <main className="mx-auto max-w-[1280px] px-4 py-5 sm:px-7">
      <div className="mb-3.5 flex flex-wrap items-center gap-x-3 gap-y-2">
        <h1>Calendar</h1>
        <span aria-live="polite" className="text-lg">
          {headOf(look, days, day)}
        </span>
        <span className="text-[13px] text-soft">Times in {Intl.DateTimeFormat().resolvedOptions().timeZone}</span>
        <span className="flex gap-4">
          <Button look="plain" aria-label="Earlier" onClick={() => onDay(stepped(look, day, -1))}>
            <ChevronLeft size={18} aria-hidden />
          </Button>
          <Button look="plain" onClick={() => onDay(startOfDay(new Date()))}>
            Today
          </Button>
          <Button look="plain" aria-label="Later" onClick={() => onDay(stepped(look, day, 1))}>
            <ChevronRight size={18} aria-hidden />
          </Button>
        </span>
        <span className="ml-auto flex flex-wrap items-center gap-x-5 gap-y-1">
          {mayUndo && (
            <Button look="quiet" onClick={() => void undo()}>
              {BUTTONS.undoMove}
            </Button>
          )}
          <TimesIn concerns={CONCERNS} />
          <PopButton
            button={{ className: buttonLook('plain'), children: 'Subscribe' }}
            panel={{ label: 'Subscribe', align: 'end', className: 'p-4' }}
          >
            <Subscribe />
          </PopButton>
          {LOOKS.map((each) => (
            <Button
              key={each}
              look={each === look ? 'quiet' : 'plain'}
              aria-pressed={each === look}
              onClick={() => show(each)}
            >
              {each === 'month' ? 'Month' : each === 'week' ? 'Week' : 'List'}
            </Button>
          ))}
        </span>
      </div>
      <DndContext
        id={dragId}
        accessibility={{ announcements: ANNOUNCED, screenReaderInstructions: { draggable: HOW_BY_KEYS } }}
        sensors={sensors}
        collisionDetection={narrowest}
        onDragStart={({ active }) => {
          setOverIt(undefined);
          setInHand(active.data.current?.opening as Opening | undefined);
        }}
        onDragOver={({ active, over }) => {
          const opening = active.data.current?.opening as Opening | undefined;
          setOverIt(opening && movedOnto(opening, over?.data.current ?? {}));
        }}
        onDragCancel={() => setInHand(undefined)}
        onDragEnd={({ active, over }) => {
          letNoClickFollow();
          setInHand(undefined);
          const opening = active.data.current?.opening as Opening | undefined;
          const { day: onto, at, hour } = (over?.data.current ?? {}) as { day?: Date; at?: Date; hour?: Date };
          if (!opening) return;
          if (onto) void move(opening, onto);
          else {
            const to = movedOnto(opening, { at, hour });
            if (to) void moveTo(opening, to);
          }
        }}
      >
        {look === 'list' ? (
          <DayList days={days} openings={openings} near={near} onMove={onKeys} />
        ) : look === 'week' ? (
          <WeekHours days={days} openings={openings} places={places} near={near} onMove={onKeys} />
        ) : (
          <DayGrid days={days} around={day} openings={openings} places={places} near={near} onMove={onKeys} />
        )}
        <DragOverlay dropAnimation={null}>
          {inHand && <OpeningInHand opening={inHand} near={near(inHand, overIt)} />}
        </DragOverlay>
      </DndContext>
      {data?.more && <p className="mt-2 text-soft">There is more than can be shown here. Look at a shorter time.</p>}
      {data && !days.some((each) => openings.has(dayKey(each))) && (
        <p className="mt-3 text-soft">
          Nothing opens in these days. On a video’s page, under “Who may see it”, say that it opens at a set time.
        </p>
      )}
    </main>
  );
}

interface DayListProps {
  days: readonly Date[];
  openings: ReadonlyMap<string, Opening[]>;
  /** What is said of one that lies too near to another; '' of the others. */
  near: (opening: Opening) => string;
  onMove: (opening: Opening, to: Date) => void;
}

/** The days on which something opens, one below the other. */
function DayList({ days, openings, near, onMove }: DayListProps) {
  const full = days.filter((day) => openings.has(dayKey(day)));
  if (full.length === 0) return null;
  return (
    <div className="enamel">
      {full.map((day) => (
        <section
          key={dayKey(day)}
          aria-label={format(day, 'EEEE d MMMM')}
          className="border-line px-4 py-2.5 not-first:border-t"
        >
          <h2 className="text-base">{format(day, 'EEEE d MMMM')}</h2>
          {openings.get(dayKey(day))?.map((opening) => (
            <OpeningLine key={opening.key} opening={opening} near={near(opening)} onMove={onMove} wide />
          ))}
        </section>
      ))}
    </div>
  );
}
