'use client';

import { memo } from 'react';
import { pixelOf, RULER, type RulerSpan } from './ruler-shape';
import type { PlacedMarker } from './time-line-state';

interface MarkersProps {
  markers: PlacedMarker[];
  /** The one that is being dragged, and is drawn elsewhere. */
  without: string | undefined;
  span: RulerSpan;
  width: number;
  onGrab: (marker: PlacedMarker) => void;
}

/** Flags that lie closer than this, in pixels, are drawn as one: more could not be told apart. */
const CLOSEST_PIXELS = 3;
const LETTER_PIXELS = 6;

/** The markers in view, at most one in a few pixels however many there are, each with its name where there is room. */
export const RulerMarkers = memo(function RulerMarkers({ markers, without, span, width, onGrab }: MarkersProps) {
  const shown: { marker: PlacedMarker; at: number }[] = [];
  const last = { true: Number.NEGATIVE_INFINITY, false: Number.NEGATIVE_INFINITY };
  for (const marker of markers) {
    const at = pixelOf(marker.seconds, span, width);
    if (marker.id === without || at < 0 || at > width) continue;
    if (at - last[`${marker.seen}`] < CLOSEST_PIXELS) continue;
    last[`${marker.seen}`] = at;
    shown.push({ marker, at });
  }
  return shown.map(({ marker, at }, index) => (
    <Flag
      key={marker.id}
      marker={marker}
      at={at}
      room={(shown[index + 1]?.at ?? width) - at - 18}
      onGrab={() => onGrab(marker)}
    />
  ));
});

interface FlagProps {
  marker: PlacedMarker;
  at: number;
  /** Pixels to the right of it that its name may take. */
  room: number;
  onGrab: () => void;
}

/** A marker on the ruler: a flag for viewers, a ring on a dotted line for a note to the team. */
function Flag({ marker, at, room, onGrab }: FlagProps) {
  const { seen, timecode, name } = marker;
  const { bandTop: top, bandBottom: bottom } = RULER;
  const letters = Math.floor(room / LETTER_PIXELS);
  return (
    <g className="cursor-ew-resize" onPointerDown={onGrab}>
      <title>{`${seen ? '' : 'Note, not for viewers: '}${timecode} ${name}`}</title>
      <rect x={at - 7} y={top} width="22" height="36" fill="transparent" />
      {seen ? (
        <g fill="var(--live)" stroke="var(--live)">
          <path d={`M${at + 1} ${top + 3}V${bottom + 5}`} strokeWidth="2" />
          <path d={`M${at + 1} ${top + 3}h12v8l-4.500-2-7.500 2z`} stroke="none" />
        </g>
      ) : (
        <g stroke="var(--idle)" fill="var(--card)">
          <path d={`M${at} ${top + 10}V${bottom}`} strokeDasharray="2 3" />
          <circle cx={at} cy={top + 8} r="3.800" strokeWidth="1.500" />
        </g>
      )}
      {letters > 2 && (
        <text x={at + (seen ? 17 : 8)} y={top + 12} fontSize="11" fill={seen ? 'var(--ink)' : 'var(--soft)'}>
          {name.length > letters ? `${name.slice(0, letters - 1)}…` : name}
        </text>
      )}
    </g>
  );
}
