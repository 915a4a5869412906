'use client';

import { useDraggable } from '@dnd-kit/core';
import { addDays, format } from 'date-fns';
import Link from 'next/link';
import type { KeyboardEvent } from 'react';
import { shownIn } from '@/core/release/in-words';
import { LOOK_COLOURS, lookOf, type StopsLook } from '@/ui/stops';
import { dayKey, type Opening, timesThere } from './days';
import { isMovable } from './use-moves';
import { whereWords } from './where-words';

/** The worst that stands of its channels is what is seen first. */
const ORDER: readonly StopsLook[] = ['snag', 'moving', 'idle', 'held', 'live'];
const SIGNS: Record<StopsLook, string> = { snag: '▲', moving: '◐', idle: '○', held: '‖', live: '●' };

const KEYS: Record<string, number> = { ArrowLeft: -1, ArrowRight: 1, ArrowUp: -7, ArrowDown: 7 };

interface OpeningLineProps {
  opening: Opening;
  /** What is said of it where it lies too near to another; '' where it does not. */
  near: string;
  onMove: (opening: Opening, to: Date) => void;
  /** Whether there is room for all that can be said. */
  wide?: boolean;
}

/** A video at the moment at which it opens, which leads to it and can be moved. */
export function OpeningLine({ opening, near, onMove, wide = false }: OpeningLineProps) {
  const { at, entries, key } = opening;
  const movable = isMovable(opening);
  const { setNodeRef, listeners, isDragging } = useDraggable({ id: key, data: { opening }, disabled: !movable });
  const [first] = entries;
  if (!first) return null;
  const hear = (event: KeyboardEvent) => {
    const days = KEYS[event.key];
    if (!movable || !event.shiftKey || !days) return;
    event.preventDefault();
    onMove(opening, addDays(at, days));
  };
  return (
    <Link
      ref={setNodeRef}
      {...listeners}
      href={`/videos/${first.videoId}`}
      draggable={false}
      onKeyDown={hear}
      data-tip={movable ? 'Drag it to another day, or Shift and arrow keys' : undefined}
      data-opening={openingOn(first.videoId, at)}
      className={`hover:bg-sunk ${isDragging ? 'opacity-50' : ''} ${LINE} ${wide ? 'sm:grid sm:grid-cols-[64px_minmax(0,1fr)_minmax(0,1fr)] sm:gap-x-3 sm:px-3 sm:py-2' : ''}`}
    >
      <OpeningWords opening={opening} near={near} wide={wide} />
    </Link>
  );
}

/** What the line of a video on a day is found by. */
export const openingOn = (videoId: string, day: Date) => `${videoId} ${dayKey(day)}`;

const LINE = 'block rounded-md px-1.5 py-1 text-[13px] leading-snug';

/** The same while it is dragged, above all else: in its place it would make what it is in scroll. */
export const OpeningInHand = ({ opening, near }: Pick<OpeningLineProps, 'opening' | 'near'>) => (
  <div className={`${LINE} cursor-grabbing bg-card shadow-lg`}>
    <OpeningWords opening={opening} near={near} wide={false} />
  </div>
);

/** When, what, where, and how it stands. */
function OpeningWords({ opening, near, wide }: Pick<OpeningLineProps, 'opening' | 'near'> & { wide: boolean }) {
  const { at, entries } = opening;
  const looks = entries.map(lookOf);
  const look = ORDER.find((each) => looks.includes(each)) ?? 'idle';
  const { where, stands } = whereWords(entries);
  const [first] = entries;
  const said = first?.opensAt;
  return (
    <>
      <span className={`font-mono tabular-nums ${LOOK_COLOURS[look]}`}>
        <span aria-hidden>{SIGNS[look]}</span> {format(at, 'HH:mm')}
      </span>{' '}
      <b className="font-medium [overflow-wrap:anywhere]">{first?.title || 'Without a title'}</b>
      <span className={`text-soft ${wide ? '' : 'block'}`}>
        {near && (
          <span className={wide ? '' : 'block'}>
            <b className="text-snag">▲ </b>
            <span className="text-ink">{near}</span>
            {wide && ' · '}
          </span>
        )}
        {where}
        <span className={wide || entries.some(({ since }) => since) ? '' : 'sr-only'}>
          {where && ' · '}
          {stands}
        </span>
        {timesThere(opening)
          .filter(({ otherDay }) => wide || otherDay)
          .map(({ siteName, time }) => (
            <span key={siteName} className={wide ? '' : 'block'}>
              {wide && ' · '}
              {siteName}: {time}
            </span>
          ))}
        {wide && said && said.zone !== Intl.DateTimeFormat().resolvedOptions().timeZone && (
          <span>
            {' '}
            · {shownIn(said.zone, at)} in {said.zone}
          </span>
        )}
      </span>
    </>
  );
}
