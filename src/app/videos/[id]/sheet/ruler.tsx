'use client';

import { type PointerEvent, useRef, useState } from 'react';
import {
  type Fraction,
  fraction,
  frameAtTime,
  rate,
  timecodeOfFrame,
  timeOfFrame,
  toNumber,
  viewerTime,
} from '@/core/time';
import type { MarkerView, SheetView } from '@/desk/views';
import { usePlayer } from './player-state';
import { useRulerView } from './ruler-view';
import type { SheetHandle } from './use-sheet';

const HEIGHT = 86;
const SPANS_TOP = 60;
const STEPS = [0.2, 0.5, 1, 2, 5, 10, 15, 30, 60, 120, 300, 600, 900, 1800, 3600];
const LEAST_GAP = 74;
const SNAP_PIXELS = 7;
const ZOOM_STEP = 0.6;

interface Dragged {
  marker: MarkerView;
  /** Where it would be put down, in seconds. */
  seconds: number;
}

/**
 * The cut's time from left to right: markers, chapters as spans, and the playhead. A press goes there, a marker can be
 * dragged; the wheel and the keys + − 0 zoom. Only what is in view is drawn, so that thousands of markers stay fluid.
 */
export function Ruler({ handle, duration, exact }: { handle: SheetHandle; duration: Fraction; exact: Fraction }) {
  const { sheet, changeMarkers } = handle;
  const { seconds, seek } = usePlayer();
  const length = toNumber(duration);
  const { box, width, span, x, zoom, showAll, isWhole } = useRulerView(length);
  const [dragged, setDragged] = useState<Dragged>();
  const grabbed = useRef(false);
  const at = rate(exact.num, exact.den);
  const frameNear = (near: number) => Math.max(0, Math.round((near * at.num) / at.den));
  const pointed = (event: PointerEvent) => x.invert(event.clientX - (box.current?.getBoundingClientRect().left ?? 0));

  const go = (event: PointerEvent) => {
    if (event.type === 'pointermove' && event.buttons !== 1) return;
    if (dragged) drag(event, dragged);
    else seek(pointed(event));
  };
  const drag = (event: PointerEvent, { marker }: Dragged) => {
    const near = pointed(event);
    const marks = [seconds, ...sheet.markers.filter((other) => other.id !== marker.id).map((other) => other.seconds)];
    const snap = marks.find((mark) => !event.altKey && Math.abs(x(mark) - x(near)) < SNAP_PIXELS);
    setDragged({ marker, seconds: Math.max(0, Math.min(length, snap ?? near)) });
  };
  const putDown = () => {
    if (!dragged) return;
    const { id, name, note, colour, hidden, time } = dragged.marker;
    const to = timeOfFrame(frameNear(dragged.seconds), at);
    setDragged(undefined);
    if (to.num !== time.num || to.den !== time.den)
      void changeMarkers({ put: [{ id, name, note, colour, hidden, time: to }] });
  };
  const step = STEPS.find((each) => x(span.from + each) >= LEAST_GAP) ?? 3600;
  const first = Math.ceil(span.from / step);
  const ticks = Array.from({ length: Math.floor(span.to / step) - first + 1 }, (_, index) => (first + index) * step);
  return (
    <div className="relative border-line border-t">
      <div
        ref={box}
        role="slider"
        tabIndex={0}
        aria-label="Time ruler"
        aria-valuemin={0}
        aria-valuemax={Math.floor(length)}
        aria-valuenow={Math.floor(seconds)}
        aria-valuetext={viewerTime(fraction(Math.floor(seconds)), length)}
        className="touch-none select-none overflow-hidden"
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          // The marker under the pointer hears of the press first.
          if (!grabbed.current) seek(pointed(event));
          grabbed.current = false;
        }}
        onPointerMove={go}
        onPointerUp={putDown}
        onPointerCancel={() => setDragged(undefined)}
        onKeyDown={(event) => {
          if (event.key === 'ArrowLeft') seek(seconds - 1);
          else if (event.key === 'ArrowRight') seek(seconds + 1);
          else if (event.key === '+') zoom(ZOOM_STEP, seconds);
          else if (event.key === '-') zoom(1 / ZOOM_STEP, seconds);
          else if (event.key === '0') showAll();
          else return;
          event.preventDefault();
        }}
      >
        <svg width={width} height={HEIGHT} viewBox={`0 0 ${width} ${HEIGHT}`} aria-hidden="true" className="block">
          {ticks.map((tick) => (
            <g key={tick}>
              <path d={`M${x(tick)} 0v5`} stroke="var(--line)" />
              <text x={x(tick) + 4} y="13" fontSize="11" fill="var(--soft)" fontFamily="var(--font-mono)">
                {step < 1
                  ? timecodeOfFrame(frameNear(tick), at).slice(3)
                  : viewerTime(fraction(Math.round(tick)), length)}
              </text>
            </g>
          ))}
          <Spans sheet={sheet} x={x} length={length} width={width} />
          {sheet.markers.map((marker) => {
            const shown = dragged?.marker.id === marker.id ? dragged.seconds : marker.seconds;
            if (shown < span.from || shown > span.to) return null;
            const seen = sheet.chapterColours.includes(marker.colour) && !marker.hidden;
            return (
              <Flag
                key={marker.id}
                marker={marker}
                at={x(shown)}
                seen={seen}
                onGrab={() => {
                  grabbed.current = true;
                  setDragged({ marker, seconds: marker.seconds });
                }}
              />
            );
          })}
          <path d={`M${x(seconds)} 0v${HEIGHT}`} stroke="var(--copper)" strokeWidth="2" />
          <path d={`M${x(seconds) - 6} 0h12l-6 8z`} fill="var(--copper)" />
        </svg>
      </div>
      {dragged && (
        <p className="pointer-events-none absolute top-1 right-2 rounded-md bg-rim px-2 py-0.5 font-mono text-card text-sm">
          {timecodeOfFrame(frameAtTime(timeOfFrame(frameNear(dragged.seconds), at), at), at)}
        </p>
      )}
      {!isWhole && (
        <button
          type="button"
          onClick={showAll}
          className="absolute top-1 right-2 rounded-full bg-card px-2.5 text-copper text-[13px] hover:underline"
        >
          Show all
        </button>
      )}
    </div>
  );
}

interface SpansProps {
  sheet: SheetView;
  x: (seconds: number) => number;
  length: number;
  width: number;
}

/** The chapters as named spans, each name cut at its end. */
function Spans({ sheet, x, length, width }: SpansProps) {
  return sheet.chapters.map(({ seconds, title }, index) => {
    const from = Math.max(0, x(seconds));
    const to = Math.min(width, x(sheet.chapters[index + 1]?.seconds ?? length));
    if (to <= from) return null;
    return (
      <g key={seconds}>
        <clipPath id={`span-${index}`}>
          <rect x={from} y={SPANS_TOP} width={Math.max(0, to - from - 6)} height="19" />
        </clipPath>
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
    );
  });
}

interface FlagProps {
  marker: MarkerView;
  at: number;
  /** Whether viewers see it as a chapter. */
  seen: boolean;
  onGrab: () => void;
}

/** A marker on the ruler: a flag for viewers, a ring on a dotted line for a note to the team. */
function Flag({ marker, at, seen, onGrab }: FlagProps) {
  const title = `${seen ? '' : 'Note, not for viewers: '}${marker.timecode} ${marker.name}`;
  return (
    <g className="cursor-ew-resize" onPointerDown={onGrab}>
      <title>{title}</title>
      <rect x={at - 7} y="16" width="22" height="30" fill="transparent" />
      {seen ? (
        <g fill="var(--live)" stroke="var(--live)">
          <path d={`M${at + 1} 20v40`} strokeWidth="2" />
          <path d={`M${at + 1} 20h12v8l-4.500-2-7.500 2z`} stroke="none" />
        </g>
      ) : (
        <g stroke="var(--idle)" fill="var(--card)">
          <path d={`M${at} 27v33`} strokeDasharray="2 3" />
          <circle cx={at} cy="25" r="3.800" strokeWidth="1.500" />
        </g>
      )}
    </g>
  );
}
