import { format } from 'date-fns';
import Link from 'next/link';
import type { FreePlace } from '@/desk/look/views';

/** A place of a series' rhythm that is still free. */
export function PlaceLine({ place: { seriesId, series, at } }: { place: FreePlace }) {
  return (
    <Link
      href={`/series/${seriesId}`}
      className="mt-1 block rounded-md border border-edge border-dashed px-1.5 py-1 text-[13px] text-soft leading-snug hover:bg-sunk"
    >
      <span className="font-mono tabular-nums">{format(new Date(at), 'HH:mm')}</span> free for {series}
    </Link>
  );
}
