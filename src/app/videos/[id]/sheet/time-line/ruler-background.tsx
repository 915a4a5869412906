'use client';

import { area, curveStepAfter, line } from 'd3-shape';
import { memo, useMemo } from 'react';
import { type BitMeasures, type CutMeasures, SILENCE } from '@/core/delivery';
import { pixelOf, RULER, type RulerSpan } from './ruler-shape';

interface BackgroundProps {
  measures: CutMeasures | undefined;
  /** Seconds at which a shot begins. */
  shots: number[];
  span: RulerSpan;
  width: number;
}

/** Pixels for which one loudness is drawn. */
const STEP_PIXELS = 2;
/** Louder than this, in LUFS, is drawn no higher. */
const LOUDEST = -5;

/** The loudest value, in LUFS, behind each step of pixels. */
function loudnessBySteps({ loudness }: CutMeasures, span: RulerSpan, width: number): number[] {
  const { step, tenths } = loudness;
  const perPixel = (span.to - span.from) / width;
  return Array.from({ length: Math.ceil(width / STEP_PIXELS) + 1 }, (_, index) => {
    const from = span.from + index * STEP_PIXELS * perPixel;
    const first = Math.floor((from * 1000) / step);
    const last = Math.max(first, Math.ceil(((from + STEP_PIXELS * perPixel) * 1000) / step) - 1);
    let most = SILENCE * 10;
    for (let at = first; at <= last; at += 1) most = Math.max(most, tenths[at] ?? SILENCE * 10);
    return most / 10;
  });
}

const { bandTop, bandBottom } = RULER;

/** The bits of the picture over time as a line, by the most that it takes anywhere. */
function bitsLine({ step, kilobits }: BitMeasures, span: RulerSpan, width: number): string | undefined {
  const most = Math.max(1, ...kilobits);
  const draw = line<number>()
    .curve(curveStepAfter)
    .x((_, index) => pixelOf((index * step) / 1000, span, width))
    .y((each) => bandBottom - (each / most) * (bandBottom - bandTop - 22));
  // A step goes on to its end.
  return draw([...kilobits, kilobits.at(-1) ?? 0]) ?? undefined;
}

/** The cut's loudness over time, the bits of its picture as a line, and thin lines where its shots begin. */
export const RulerBackground = memo(function RulerBackground({ measures, shots, span, width }: BackgroundProps) {
  const path = useMemo(() => {
    if (!measures) return undefined;
    const height = (lufs: number) => Math.min(1, Math.max(0, (lufs - SILENCE) / (LOUDEST - SILENCE))) ** 1.4;
    const draw = area<number>()
      .x((_, index) => index * STEP_PIXELS)
      .y0(bandBottom)
      .y1((lufs) => bandBottom - height(lufs) * (bandBottom - bandTop));
    return draw(loudnessBySteps(measures, span, width)) ?? undefined;
  }, [measures, span, width]);
  const bits = useMemo(() => measures?.bits && bitsLine(measures.bits, span, width), [measures, span, width]);
  let last = Number.NEGATIVE_INFINITY;
  return (
    <g>
      {path && <path d={path} fill="var(--sunk)" />}
      {bits && (
        <path d={bits} fill="none" stroke="var(--idle)" strokeOpacity="0.7" pointerEvents="stroke">
          <title>Bit rate of the picture</title>
        </path>
      )}
      <path d={`M0 ${bandBottom + 0.5}H${width}`} stroke="var(--line)" />
      {shots.map((shot) => {
        const at = Math.round(pixelOf(shot, span, width));
        if (at < 0 || at > width || at - last < 3) return null;
        last = at;
        return <path key={shot} d={`M${at + 0.5} ${bandTop + 22}V${bandBottom}`} stroke="var(--line)" />;
      })}
    </g>
  );
});
