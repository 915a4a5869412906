'use client';

import { useQuery } from '@tanstack/react-query';
import { shownIn } from '@/core/release/in-words';
import type { Moment } from '@/core/release/moment';
import { ask } from '@/ui/ask';
import type { SheetHandle } from '../use-sheet';

/** The next free place of its series' rhythm, while the video has no time of its own. */
export function PlaceOffer({ handle }: { handle: SheetHandle }) {
  const { id, series, values } = handle.sheet;
  // Whether its series has a rhythm today is for the server: what was sent keeps to the defaults of then.
  const isOffered = series !== undefined && values.opensAt === null;
  const { data } = useQuery({
    queryKey: ['sheet', id, 'place', series?.id],
    queryFn: () => ask<{ place?: Moment; instant?: string }>(`/api/videos/${id}/place`),
    enabled: isOffered,
  });
  const { place, instant } = data ?? {};
  if (!isOffered || !place || !instant) return null;
  return (
    <p className="text-[13px] text-soft">
      Next free place of “{series?.name}”:{' '}
      <button
        type="button"
        className="textlink"
        onClick={() => void handle.save({ release: 'at a time', opensAt: place })}
      >
        open {shownIn(place.zone, new Date(instant))}
      </button>
    </p>
  );
}
