'use client';

import { memo } from 'react';
import type { CutMeasures, CutSpan } from '@/core/delivery';
import { overlaps } from '@/core/preflight';
import { toNumber } from '@/core/time';
import { pixelOf, RULER, type RulerSpan } from './ruler-shape';

interface SpansProps {
  measures: CutMeasures | undefined;
  span: RulerSpan;
  width: number;
}

/** Spans that are shorter are cuts and breaths, of which a ruler would be full. */
const LEAST_SECONDS = 1;
const HEIGHT = 5;
/** Room that a word needs. */
const WORD_PIXELS = 44;

/** What each is called, and where it lies. */
const KINDS = [
  { name: 'still', top: RULER.bandTop, fill: 'url(#ruler-still)' },
  { name: 'black', top: RULER.bandTop, fill: 'var(--ink)' },
  { name: 'silent', top: RULER.bandBottom - HEIGHT, fill: 'var(--soft)' },
] as const;

/** Where the picture is black or still, and where nothing is heard. */
export const RulerSpans = memo(function RulerSpans({ measures, span, width }: SpansProps) {
  const black = measures?.picture?.black ?? [];
  const found: Record<(typeof KINDS)[number]['name'], readonly CutSpan[]> = {
    // Black is still, too, and says so itself.
    still: (measures?.picture?.frozen ?? []).filter((each) => !black.some((over) => overlaps(each, over))),
    black,
    silent: measures?.sound?.silent ?? [],
  };
  return (
    <g>
      <pattern id="ruler-still" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <rect width="2" height="5" fill="var(--idle)" />
      </pattern>
      {KINDS.flatMap(({ name, top, fill }) =>
        found[name].map(({ from, to }) => {
          const [start, end] = [toNumber(from), toNumber(to)];
          const left = Math.max(0, pixelOf(start, span, width));
          const right = Math.min(width, pixelOf(end, span, width));
          if (end - start < LEAST_SECONDS || right <= left) return null;
          return (
            <g key={`${name} ${start}`}>
              <rect x={left} y={top} width={right - left} height={HEIGHT} fill={fill} />
              {right - left > WORD_PIXELS && (
                <text x={left + 3} y={name === 'silent' ? top - 3 : top + HEIGHT + 10} fontSize="11" fill="var(--soft)">
                  {name}
                </text>
              )}
            </g>
          );
        }),
      )}
    </g>
  );
});
