'use client';

import { useDroppable } from '@dnd-kit/core';
import { format } from 'date-fns';
import Link from 'next/link';
import type { FreePlace } from '@/desk/views/views';

/** A place of a series' rhythm that is still free; what is dropped on it opens then. */
export function PlaceLine({ place }: { place: FreePlace }) {
  const { seriesId, series, at } = place;
  const { setNodeRef, isOver } = useDroppable({ id: `place ${seriesId} ${at}`, data: { at: new Date(at) } });
  return (
    <Link
      ref={setNodeRef}
      href={`/series/${seriesId}`}
      className={`mt-1 block rounded-md border border-edge border-dashed px-1.5 py-1 text-[13px] text-soft leading-snug hover:bg-sunk ${isOver ? 'bg-copper-wash' : ''}`}
    >
      <span className="font-mono tabular-nums">{format(new Date(at), 'HH:mm')}</span> free for {series}
    </Link>
  );
}
