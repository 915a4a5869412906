'use client';

import { memo } from 'react';
import type { Chapter } from '@/core/chapters';
import { toNumber } from '@/core/time';
import { pixelOf, RULER, type RulerSpan } from './ruler-shape';

interface ChaptersProps {
  chapters: Chapter[];
  /** Seconds at which the last one ends. */
  end: number;
  span: RulerSpan;
  width: number;
}

const LETTER_PIXELS = 6.4;

/** The chapters as named spans; a name is shortened to the room that its span has. */
export const RulerChapters = memo(function RulerChapters({ chapters, end, span, width }: ChaptersProps) {
  const { chaptersTop: top, chaptersHeight: height } = RULER;
  return chapters.map(({ markerId, time, title }, index) => {
    const next = chapters[index + 1];
    const from = Math.max(0, pixelOf(toNumber(time), span, width));
    const to = Math.min(width, pixelOf(next ? toNumber(next.time) : end, span, width));
    if (to - from < 2) return null;
    const letters = Math.floor((to - from - 12) / LETTER_PIXELS);
    return (
      <g key={markerId}>
        <rect x={from + 1} y={top} width={Math.max(1, to - from - 2)} height={height} rx="4" fill="var(--live-wash)" />
        {letters > 1 && (
          <text x={from + 7} y={top + 14} fontSize="12" fill="var(--ink)">
            {title.length > letters ? `${title.slice(0, letters - 1)}…` : title}
          </text>
        )}
      </g>
    );
  });
});
