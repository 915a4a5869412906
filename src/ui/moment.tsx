'use client';

import { useSyncExternalStore } from 'react';
import { timeIn } from '@/core/release/in-words';

const never = () => () => {};

/** The manager's own zone; on the server, which does not know it, UTC. */
export const useZone = () =>
  useSyncExternalStore(
    never,
    () => Intl.DateTimeFormat().resolvedOptions().timeZone,
    () => 'UTC',
  );

/** A time in the manager's own zone. */
export function Moment({ at, short = false }: { at: string; short?: boolean }) {
  const zone = useZone();
  const parts: Intl.DateTimeFormatOptions = short
    ? { weekday: 'short', hour: '2-digit', minute: '2-digit' }
    : { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit', second: '2-digit' };
  const text = new Intl.DateTimeFormat('en-GB', { ...parts, timeZone: zone }).format(new Date(at));
  return (
    <time dateTime={at} title={timeIn(zone, new Date(at))}>
      {text}
    </time>
  );
}
