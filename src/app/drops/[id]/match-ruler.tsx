'use client';

import { scaleLinear } from 'd3-scale';
import { type Fraction, fraction, toNumber, viewerTime } from '@/core/time';
import type { MatchView } from '@/desk/views/match-view';

const [WIDTH, HEIGHT, TOP, BAND] = [1080, 62, 20, 24];

/** The whole video from left to right, with the spans that somebody has rights in. */
export function MatchRuler({ matches, length }: { matches: readonly MatchView[]; length: Fraction }) {
  const seconds = toNumber(length);
  const x = scaleLinear([0, seconds], [0, WIDTH]);
  const stamp = (at: number) => viewerTime(fraction(Math.floor(at)), seconds);
  return (
    <svg
      viewBox={`0 -2 ${WIDTH} ${HEIGHT + 4}`}
      role="img"
      aria-label={`Where the matches lie in ${stamp(seconds)}`}
      className="w-full"
    >
      <pattern id="match-span" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <rect width="6" height="6" fill="var(--snag-wash)" />
        <rect width="2.5" height="6" fill="var(--snag)" />
      </pattern>
      <rect x="0" y={TOP} width={WIDTH} height={BAND} rx="4" fill="var(--sunk)" stroke="var(--line)" />
      {matches.map(({ id, inCut, open }, index) => {
        const [from, to] = [toNumber(inCut.from), toNumber(inCut.to)];
        const [left, right] = [x(from), Math.max(x(from) + 3, x(to))];
        const late = left > WIDTH * 0.75;
        return (
          <g key={id}>
            <rect
              x={left}
              y={TOP}
              width={right - left}
              height={BAND}
              fill={open ? 'url(#match-span)' : 'var(--held-wash)'}
              stroke={open ? 'var(--snag)' : 'var(--held)'}
            />
            <text
              x={late ? right : left}
              y={TOP - 6}
              fontSize="12"
              textAnchor={late ? 'end' : 'start'}
              fill="var(--ink)"
            >
              {index + 1} · {stamp(from)}–{stamp(to)}
            </text>
          </g>
        );
      })}
      {x.ticks(8).map((tick) => (
        <text
          key={tick}
          x={Math.min(x(tick), WIDTH - 2)}
          y={HEIGHT}
          fontSize="11"
          textAnchor={tick === 0 ? 'start' : x(tick) > WIDTH - 20 ? 'end' : 'middle'}
          fill="var(--soft)"
        >
          {stamp(tick)}
        </text>
      ))}
    </svg>
  );
}
