'use client';

import { memo } from 'react';
import { fraction, type Rate, timecodeOfFrame, viewerTime } from '@/core/time';
import { pixelOf, type RulerSpan } from './ruler-shape';

const STEPS = [0.2, 0.5, 1, 2, 5, 10, 15, 30, 60, 120, 300, 600, 900, 1800, 3600];
const LEAST_GAP = 74;
const LABEL_PIXELS = 40;

interface TicksProps {
  span: RulerSpan;
  width: number;
  length: number;
  rate: Rate;
}

/** Times of the cut, as many as there is room for. */
export const RulerTicks = memo(function RulerTicks({ span, width, length, rate }: TicksProps) {
  const step = STEPS.find((each) => (each / (span.to - span.from)) * width >= LEAST_GAP) ?? 3600;
  const first = Math.ceil(span.from / step);
  const ticks = Array.from({ length: Math.floor(span.to / step) - first + 1 }, (_, index) => (first + index) * step);
  const text = (seconds: number) =>
    step < 1
      ? timecodeOfFrame(Math.round((seconds * rate.num) / rate.den), rate).slice(3)
      : viewerTime(fraction(Math.round(seconds)), length);
  return ticks.map((tick) => {
    const at = pixelOf(tick, span, width);
    return (
      <g key={tick}>
        <path d={`M${at} 0v5`} stroke="var(--idle)" />
        {at < width - LABEL_PIXELS && (
          <text x={at + 4} y="13" fontSize="11" fill="var(--soft)" fontFamily="var(--font-mono)">
            {text(tick)}
          </text>
        )}
      </g>
    );
  });
});
