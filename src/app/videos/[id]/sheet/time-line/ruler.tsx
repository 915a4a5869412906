'use client';

import { type PointerEvent, useCallback, useMemo, useRef, useState } from 'react';
import { fraction, minus, toNumber, viewerTime } from '@/core/time';
import { BUTTONS } from '@/ui/button-words';
import { useFraming } from '../framing/framing-state';
import { useFromPlayhead, usePlayer, usePlayhead } from './player-state';
import { RulerBackground } from './ruler-background';
import { RulerChapters } from './ruler-chapters';
import { RulerFrames } from './ruler-frames';
import { RulerMarkers } from './ruler-markers';
import { RulerMatches } from './ruler-matches';
import { RULER } from './ruler-shape';
import { RulerSpans } from './ruler-spans';
import { RulerTicks } from './ruler-ticks';
import { useRulerView } from './ruler-view';
import { again, type PlacedMarker, useTimeLine } from './time-line-state';
import { useMeasures } from './use-measures';

const SNAP_PIXELS = 7;
const ZOOM_STEP = 0.6;

/** A marker under the pointer. */
interface Dragged {
  marker: PlacedMarker;
  /** Where it would be put down, in seconds of the cut. */
  seconds: number;
}

/** With Shift, keys that show another part: nine tenths of what is shown, back or on. */
const PAGES: Record<string, number | undefined> = { PageUp: -0.9, PageDown: 0.9 };

/**
 * The cut's time from left to right: sound and shots as a quiet background, markers, chapters as spans, the exported
 * range, and the playhead. A press goes there, a marker can be dragged; the wheel and the keys + − 0 zoom.
 */
export function Ruler() {
  const { handle, markers, chapters, duration, rate, timecode, timeOfCutFrame, change } = useTimeLine();
  const { cut, measured, timeLine } = handle.sheet;
  const measureAgain = () => handle.act(`/api/cuts/${cut?.id}/again`, { method: 'POST', json: { kind: 'measure' } });
  const { shape } = useFraming();
  const player = usePlayer();
  const length = duration ? toNumber(duration) : 1;
  const { box, width, span, x, zoom, move, showAll, isWhole } = useRulerView(length);
  const [dragged, setDragged] = useState<Dragged>();
  const grabbed = useRef(false);
  const measures = useMeasures(handle.sheet);
  const shots = useMemo(
    () => (measures?.shots ?? []).map((frame) => (frame * rate.den) / rate.num),
    [measures, rate.den, rate.num],
  );
  const end = timeLine.to ? toNumber(minus(timeLine.to, timeLine.from)) : length;

  const frameNear = (near: number) => Math.max(0, Math.round((near * rate.num) / rate.den));
  const pointed = (event: PointerEvent) => x.invert(event.clientX - (box.current?.getBoundingClientRect().left ?? 0));
  const grab = useCallback((marker: PlacedMarker) => {
    grabbed.current = true;
    setDragged({ marker, seconds: marker.seconds });
  }, []);
  const drag = (event: PointerEvent, { marker }: Dragged) => {
    const near = pointed(event);
    const others = markers.filter(({ id }) => id !== marker.id).map(({ seconds }) => seconds);
    const marks = event.altKey ? [] : [player.now().seconds, ...others, ...shots];
    const close = marks.filter((mark) => Math.abs(x(mark) - x(near)) < SNAP_PIXELS);
    const snap = close.sort((a, b) => Math.abs(a - near) - Math.abs(b - near))[0];
    setDragged({ marker, seconds: Math.max(0, Math.min(length, snap ?? near)) });
  };
  const putDown = () => {
    if (!dragged) return;
    const { marker, seconds } = dragged;
    setDragged(undefined);
    const time = timeOfCutFrame(frameNear(seconds));
    if (timecode(time) !== marker.timecode) void change({ put: [{ ...again(marker), time }] });
  };
  // In whole seconds, so that the ruler is not drawn anew for each frame.
  const now = useFromPlayhead(({ seconds: at }) => Math.floor(at));
  const seconds = () => player.now().seconds;
  const keys: Record<string, () => void> = {
    ArrowLeft: () => player.seek(seconds() - 1),
    ArrowRight: () => player.seek(seconds() + 1),
    Home: () => player.seek(0),
    End: () => player.seek(length),
    '+': () => zoom(ZOOM_STEP, seconds()),
    '-': () => zoom(1 / ZOOM_STEP, seconds()),
    '0': showAll,
  };
  const [before, after] = [markers.filter((each) => each.seconds < 0), markers.filter((each) => each.seconds > length)];
  return (
    <div className="relative border-line border-t">
      <div
        role="slider"
        tabIndex={0}
        aria-label="Time ruler"
        aria-valuemin={0}
        aria-valuemax={Math.floor(length)}
        aria-valuenow={now}
        aria-valuetext={viewerTime(fraction(now), length)}
        ref={box}
        className="relative touch-none select-none overflow-hidden"
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          // The marker under the pointer hears of the press first.
          if (!grabbed.current) player.seek(pointed(event));
          grabbed.current = false;
        }}
        onPointerMove={(event) => {
          if (dragged) drag(event, dragged);
          else if (event.buttons === 1) player.seek(pointed(event));
        }}
        onPointerUp={putDown}
        onPointerCancel={() => setDragged(undefined)}
        onKeyDown={(event) => {
          const page = event.shiftKey ? PAGES[event.key] : undefined;
          const does = page ? () => move(page) : Object.hasOwn(keys, event.key) ? keys[event.key] : undefined;
          if (!does || event.altKey || event.ctrlKey || event.metaKey) return;
          does();
          event.preventDefault();
        }}
      >
        <svg
          width={width}
          height={RULER.height}
          viewBox={`0 0 ${width} ${RULER.height}`}
          aria-hidden="true"
          className="block"
        >
          <RulerBackground measures={measures} shots={shots} span={span} width={width} />
          <RulerSpans measures={measures} span={span} width={width} />
          <RulerMatches matches={handle.sheet.matches} span={span} width={width} />
          <RulerTicks span={span} width={width} length={length} rate={rate} />
          {shape && (
            <RulerFrames placements={handle.sheet.framings[shape]?.placements ?? []} span={span} width={width} />
          )}
          {end < length && (
            <rect
              x={x(end)}
              y={0}
              width={Math.max(0, width - x(end))}
              height={RULER.height}
              fill="var(--sunk)"
              opacity="0.75"
            />
          )}
          <RulerChapters chapters={chapters} end={Math.min(end, length)} span={span} width={width} />
          <RulerMarkers markers={markers} without={dragged?.marker.id} span={span} width={width} onGrab={grab} />
          {dragged && (
            <RulerMarkers
              markers={[{ ...dragged.marker, seconds: dragged.seconds }]}
              without={undefined}
              span={span}
              width={width}
              onGrab={grab}
            />
          )}
          <Edge at={x(0)} name="I" towards={1} />
          <Edge at={x(end)} name="O" towards={-1} />
          <Playhead x={x} />
        </svg>
      </div>
      <div className="pointer-events-none absolute top-1 right-2 flex gap-2 text-[13px]">
        {dragged && (
          <p className="rounded-md bg-rim px-2 py-0.5 font-mono text-card text-sm">
            {timecode(timeOfCutFrame(frameNear(dragged.seconds)))}
          </p>
        )}
        {!isWhole && (
          <button
            type="button"
            onClick={showAll}
            className="pointer-events-auto rounded-full bg-card px-2.5 text-copper hover:underline"
          >
            {BUTTONS.showAll}
          </button>
        )}
      </div>
      {(before.length > 0 || after.length > 0 || (measured && measured !== 'ready')) && (
        <p className="flex justify-between gap-4 border-line border-t px-3.5 py-1 text-[13px] text-soft">
          <span>{before.length > 0 && `◂ ${before.length} before the video begins`}</span>
          <span>
            {measured === 'waiting' && 'The file is being looked over …'}
            {measured === 'failed' && (
              <>
                Sound and shots are not known.{' '}
                <button type="button" className="textlink" onClick={measureAgain}>
                  {BUTTONS.tryAgain}
                </button>
              </>
            )}
          </span>
          <span>{after.length > 0 && `${after.length} after the video ends ▸`}</span>
        </p>
      )}
    </div>
  );
}

/** Where the exported range begins or ends. */
function Edge({ at, name, towards }: { at: number; name: string; towards: 1 | -1 }) {
  const { height } = RULER;
  return (
    <g stroke="var(--rim)" fill="none" strokeWidth="2">
      <path d={`M${at + towards * 7} 1h${-towards * 6}v${height - 2}h${towards * 6}`} />
      <text
        x={at + towards * 5}
        y={height - 5}
        fontSize="10"
        textAnchor={towards > 0 ? 'start' : 'end'}
        stroke="none"
        fill="var(--rim)"
      >
        {name}
      </text>
    </g>
  );
}

function Playhead({ x }: { x: (seconds: number) => number }) {
  const at = x(usePlayhead().seconds);
  return (
    <g>
      <path d={`M${at} 0v${RULER.height}`} stroke="var(--copper)" strokeWidth="2" />
      <path d={`M${at - 6} 0h12l-6 8z`} fill="var(--copper)" />
    </g>
  );
}
