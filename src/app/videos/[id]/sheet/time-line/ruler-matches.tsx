'use client';

import { memo } from 'react';
import { toNumber } from '@/core/time';
import type { SheetView } from '@/desk/views/views';
import { pixelOf, RULER, type RulerSpan } from './ruler-shape';

interface MatchesProps {
  matches: SheetView['matches'];
  span: RulerSpan;
  width: number;
}

/** Room that a letter of a name needs. */
const LETTER_PIXELS = 6.5;

/** Where somebody else has rights: what waits for a person is hatched. */
export const RulerMatches = memo(function RulerMatches({ matches, span, width }: MatchesProps) {
  return (
    <g>
      <pattern id="ruler-match" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
        <rect width="2" height="6" fill="var(--snag)" />
      </pattern>
      {matches.map(({ id, work, inCut, open }) => {
        const left = Math.max(0, pixelOf(toNumber(inCut.from), span, width));
        const right = Math.min(width, pixelOf(toNumber(inCut.to), span, width));
        if (right <= left) return null;
        const height = RULER.bandBottom - RULER.bandTop;
        const colour = open ? 'var(--snag)' : 'var(--held)';
        return (
          <g key={id}>
            <rect
              x={left}
              y={RULER.bandTop}
              width={right - left}
              height={height}
              fill={open ? 'url(#ruler-match)' : 'none'}
              opacity="0.35"
            />
            <path
              d={`M${left} ${RULER.bandTop}v${height}M${right} ${RULER.bandTop}v${height}`}
              stroke={colour}
              strokeWidth="1.5"
            />
            {right - left > work.length * LETTER_PIXELS && (
              <text x={left + 4} y={RULER.bandTop + 12} fontSize="11" fill={colour}>
                {work}
              </text>
            )}
          </g>
        );
      })}
    </g>
  );
});
