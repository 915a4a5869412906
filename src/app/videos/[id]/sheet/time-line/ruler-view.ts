'use client';

import { scaleLinear } from 'd3-scale';
import { useEffect, useRef, useState } from 'react';
import type { RulerSpan } from './ruler-shape';

/** Seconds that the ruler shows at the closest. */
const CLOSEST_SECONDS = 1;

/** The ruler's width, and the part of the cut that it shows; zoomed about a point and moved along. */
export function useRulerView(length: number) {
  const box = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(880);
  const [span, setSpan] = useState<RulerSpan>({ from: 0, to: length });
  useEffect(() => {
    const watch = new ResizeObserver(([entry]) => entry && setWidth(Math.max(280, entry.contentRect.width)));
    if (box.current) watch.observe(box.current);
    return () => watch.disconnect();
  }, []);

  const bounded = (from: number, wide: number): RulerSpan => {
    const shown = Math.min(length, Math.max(CLOSEST_SECONDS, wide));
    const start = Math.max(0, Math.min(from, length - shown));
    return { from: start, to: start + shown };
  };
  /** Shows `factor` times as much, with the second `about` staying where it is. */
  const zoom = (factor: number, about: number) =>
    setSpan(({ from, to }) => bounded(about - (about - from) * factor, (to - from) * factor));
  /** Moves along by a share of what is shown. */
  const move = (share: number) => setSpan(({ from, to }) => bounded(from + (to - from) * share, to - from));
  const showAll = () => setSpan({ from: 0, to: length });

  const turn = useRef<(event: WheelEvent) => void>(() => {});
  turn.current = (event) => {
    event.preventDefault();
    const left = box.current?.getBoundingClientRect().left ?? 0;
    if (event.shiftKey || Math.abs(event.deltaX) > Math.abs(event.deltaY)) {
      move((event.deltaX || event.deltaY) / width);
    } else {
      zoom(1.0015 ** event.deltaY, span.from + ((event.clientX - left) / width) * (span.to - span.from));
    }
  };
  useEffect(() => {
    const element = box.current;
    // Not by React: its wheel listeners cannot hold the page back from scrolling.
    const listen = (event: WheelEvent) => turn.current(event);
    element?.addEventListener('wheel', listen, { passive: false });
    return () => element?.removeEventListener('wheel', listen);
  }, []);

  const x = scaleLinear([span.from, span.to], [0, width]);
  return { box, width, span, x, zoom, move, showAll, isWhole: span.from === 0 && span.to >= length };
}
