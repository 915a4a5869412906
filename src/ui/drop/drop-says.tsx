'use client';

import { useEffect, useState } from 'react';
import type { DropView } from '@/desk/views/views';
import { dropWords } from '../drop-words';

const TICK_MILLISECONDS = 250;

/** Whole seconds until an instant, as they pass; undefined before the page is there, and where there is no instant. */
function useSecondsUntil(instant: string | undefined): number | undefined {
  const [seconds, setSeconds] = useState<number>();
  useEffect(() => {
    if (instant === undefined) return setSeconds(undefined);
    const tick = () => setSeconds(Math.max(0, Math.ceil((Date.parse(instant) - Date.now()) / 1000)));
    tick();
    const timer = setInterval(tick, TICK_MILLISECONDS);
    return () => clearInterval(timer);
  }, [instant]);
  return seconds;
}

/** Where a drop stands, in one short line; with the seconds that are left to stop it where it opens by a word. */
export function DropSays({ drop, zone }: { drop: DropView; zone: string }) {
  const opens = drop.state === 'held' && drop.onWord && !drop.snag && !drop.waiting ? drop.opensAt : undefined;
  const seconds = useSecondsUntil(opens);
  return <>{opens === undefined || !seconds ? dropWords(drop, zone) : `Opens in ${seconds} s`}</>;
}
