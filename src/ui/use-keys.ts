import { useEffect, useRef } from 'react';

/** Hears every key that is pressed on the page, for as long as a part of it is there. */
export function useKeys(hear: (event: KeyboardEvent) => void): void {
  const newest = useRef(hear);
  newest.current = hear;
  useEffect(() => {
    const listen = (event: KeyboardEvent) => newest.current(event);
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  }, []);
}
