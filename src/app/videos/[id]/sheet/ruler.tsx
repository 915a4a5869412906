'use client';

import { scaleLinear } from 'd3-scale';
import { type PointerEvent, useEffect, useRef, useState } from 'react';
import { type Fraction, fraction, toNumber, viewerTime } from '@/core/time';
import type { SheetView } from '@/desk/views';
import { usePlayer } from './player-state';

const HEIGHT = 86;
const SPANS_TOP = 60;
const STEPS = [1, 2, 5, 10, 15, 30, 60, 120, 300, 600, 900, 1800, 3600];
const LEAST_GAP = 74;

function useWidth() {
  const box = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(880);
  useEffect(() => {
    const watch = new ResizeObserver(([entry]) => entry && setWidth(Math.max(280, entry.contentRect.width)));
    if (box.current) watch.observe(box.current);
    return () => watch.disconnect();
  }, []);
  return { box, width };
}

/** The cut's time from left to right: markers, chapters as spans, and the playhead. A press goes there. */
export function Ruler({ sheet, duration }: { sheet: SheetView; duration: Fraction }) {
  const { seconds, seek } = usePlayer();
  const { box, width } = useWidth();
  const length = toNumber(duration);
  const x = scaleLinear([0, length], [0, width]);
  const step = STEPS.find((each) => x(each) >= LEAST_GAP) ?? 3600;
  const ticks = Array.from({ length: Math.floor(length / step) + 1 }, (_, index) => index * step);
  const spans = sheet.chapters.map(({ seconds: start, title }, index) => ({
    from: x(start),
    to: x(sheet.chapters[index + 1]?.seconds ?? length),
    title,
  }));
  const chosen = new Set(sheet.chapterColours);
  const go = (event: PointerEvent<HTMLDivElement>) => {
    if (event.type === 'pointermove' && event.buttons !== 1) return;
    seek(x.invert(event.clientX - event.currentTarget.getBoundingClientRect().left));
  };
  return (
    <div
      ref={box}
      role="slider"
      tabIndex={0}
      aria-label="Time ruler"
      aria-valuemin={0}
      aria-valuemax={Math.floor(length)}
      aria-valuenow={Math.floor(seconds)}
      aria-valuetext={viewerTime(fraction(Math.floor(seconds)), length)}
      className="touch-none select-none border-line border-t"
      onPointerDown={go}
      onPointerMove={go}
      onKeyDown={(event) => {
        if (event.key === 'ArrowLeft') seek(seconds - 1);
        else if (event.key === 'ArrowRight') seek(seconds + 1);
        else return;
        event.preventDefault();
      }}
    >
      <svg width={width} height={HEIGHT} viewBox={`0 0 ${width} ${HEIGHT}`} aria-hidden="true" className="block">
        <defs>
          {spans.map(({ from, to }, index) => (
            <clipPath key={from} id={`span-${index}`}>
              <rect x={from} y={SPANS_TOP} width={Math.max(0, to - from - 6)} height="19" />
            </clipPath>
          ))}
        </defs>
        {ticks.map((tick) => (
          <g key={tick}>
            <path d={`M${x(tick)} 0v5`} stroke="var(--line)" />
            <text x={x(tick) + 4} y="13" fontSize="11" fill="var(--soft)" fontFamily="var(--font-mono)">
              {viewerTime(fraction(tick), length)}
            </text>
          </g>
        ))}
        {spans.map(({ from, to, title }, index) => (
          <g key={from}>
            <rect
              x={from + 1}
              y={SPANS_TOP}
              width={Math.max(1, to - from - 2)}
              height="19"
              rx="4"
              fill="var(--live-wash)"
            />
            <text x={from + 7} y={SPANS_TOP + 13.5} fontSize="12" fill="var(--ink)" clipPath={`url(#span-${index})`}>
              {title}
            </text>
          </g>
        ))}
        {sheet.markers.map((marker) => {
          const at = x(marker.seconds);
          if (chosen.has(marker.colour) && !marker.hidden) {
            return (
              <g key={marker.id} fill="var(--live)" stroke="var(--live)">
                <title>{`${marker.timecode} ${marker.name}`}</title>
                <path d={`M${at + 1} 20v40`} strokeWidth="2" />
                <path d={`M${at + 1} 20h12v8l-4.500-2-7.500 2z`} stroke="none" />
              </g>
            );
          }
          return (
            <g key={marker.id} stroke="var(--idle)" fill="var(--card)">
              <title>{`Note, not for viewers: ${marker.timecode} ${marker.name}`}</title>
              <path d={`M${at} 27v33`} strokeDasharray="2 3" />
              <circle cx={at} cy="25" r="3.800" strokeWidth="1.500" />
            </g>
          );
        })}
        <path d={`M${x(seconds)} 0v${HEIGHT}`} stroke="var(--copper)" strokeWidth="2" />
        <path d={`M${x(seconds) - 6} 0h12l-6 8z`} fill="var(--copper)" />
      </svg>
    </div>
  );
}
