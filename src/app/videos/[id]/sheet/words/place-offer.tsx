'use client';

import { useQuery } from '@tanstack/react-query';
import { timeIn } from '@/core/release/in-words';
import type { Moment } from '@/core/release/moment';
import { isTimed } from '@/core/release/opening';
import { ask } from '@/ui/ask';
import { useZone } from '@/ui/moment';
import type { SheetHandle } from '../use-sheet';

/** The next free place of its series' rhythm, for what is still to open. */
export function PlaceOffer({ handle }: { handle: SheetHandle }) {
  const zone = useZone();
  const { id, series, values, channels } = handle.sheet;
  // Whether its series has a rhythm today is for the server: what was sent keeps to the defaults of then.
  const isOut =
    channels.some(({ ticked }) => ticked) && channels.every(({ ticked, drop }) => !ticked || drop?.state === 'live');
  const isOffered = series !== undefined && !isOut;
  const { data } = useQuery({
    queryKey: ['sheet', id, 'place', series?.id],
    queryFn: () => ask<{ place?: Moment; instant?: string }>(`/api/videos/${id}/place`),
    enabled: isOffered,
  });
  const { place, instant } = data ?? {};
  if (!isOffered || !place || !instant) return null;
  const { release, opensAt } = values;
  if (isTimed(release) && opensAt?.wall === place.wall && opensAt.zone === place.zone) return null;
  return (
    <p className="text-[13px] text-soft">
      Next free place of “{series?.name}”:{' '}
      <button
        type="button"
        className="textlink"
        onClick={() => void handle.save({ release: isTimed(release) ? release : 'at a time', opensAt: place })}
      >
        open {timeIn(zone, new Date(instant))}
      </button>
    </p>
  );
}
