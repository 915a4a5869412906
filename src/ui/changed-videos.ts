'use client';

import { useEffect, useRef } from 'react';

type Hear = (videoIds: readonly string[]) => void;
const listeners = new Set<Hear>();

/** Tells whoever shows several videos which of them have changed. */
export function tellChangedVideos(videoIds: readonly string[]): void {
  for (const hear of listeners) hear(videoIds);
}

/** Hears which videos have changed, for as long as a part of the page is there. */
export function useChangedVideos(hear: Hear): void {
  const newest = useRef(hear);
  newest.current = hear;
  useEffect(() => {
    const listener: Hear = (videoIds) => newest.current(videoIds);
    listeners.add(listener);
    return () => void listeners.delete(listener);
  }, []);
}
