'use client';

import { useQuery } from '@tanstack/react-query';
import Link from 'next/link';
import { timeIn } from '@/core/release/in-words';
import type { Clash } from '@/desk/release/clashes';
import { ask } from '@/ui/ask';
import { APART_CHOICES } from '@/ui/fields/choices';
import { useZone } from '@/ui/moment';
import type { SheetHandle } from '../use-sheet';

const apartWords = (hours: number) => APART_CHOICES.find(([value]) => Number(value) === hours)?.[1] ?? `${hours} hours`;

/** What opens on the same channels too near; it stops nothing. */
export function Clashes({ handle }: { handle: SheetHandle }) {
  const { id, values, updatedAt } = handle.sheet;
  const zone = useZone();
  const { data } = useQuery({
    queryKey: ['sheet', id, 'clashes', values.opensAt, updatedAt],
    queryFn: () => ask<{ clashes: Clash[] }>(`/api/videos/${id}/clashes`),
    placeholderData: (before) => before,
  });
  return data?.clashes.map(({ channel, hoursApart, videoId, title, at }) => (
    <p key={`${channel} ${videoId}`} className="text-[13px]">
      <b className="text-snag">▲ </b>
      <Link href={`/videos/${videoId}`} className="textlink">
        {title || 'Another video'}
      </Link>{' '}
      opens on {channel} {timeIn(zone, new Date(at))}; there is to be {apartWords(hoursApart)} between two releases
      there.
    </p>
  ));
}
