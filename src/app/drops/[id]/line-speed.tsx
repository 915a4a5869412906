'use client';

import { scaleLinear, scaleTime } from 'd3-scale';
import { area, curveMonotoneX, line } from 'd3-shape';
import { lineRate } from '@/core/delivery';
import type { DropPageView } from '@/desk/views/drop-page';
import { useZone } from '@/ui/moment';

const [WIDTH, HEIGHT, LEFT, BOTTOM] = [600, 132, 74, 22];

/** How fast the line was while the file went over it. */
export function LineSpeed({ speeds }: Pick<DropPageView, 'speeds'>) {
  const zone = useZone();
  const points = speeds.map(({ at, bytesPerSecond }) => ({ at: new Date(at), rate: bytesPerSecond }));
  const [first, last] = [points[0], points.at(-1)];
  if (!first || !last || points.length < 2) return null;
  const most = Math.max(...points.map(({ rate }) => rate));
  const x = scaleTime([first.at, last.at], [LEFT, WIDTH - 8]);
  const y = scaleLinear([0, most], [HEIGHT - BOTTOM, 8]).nice(3);
  const across = (point: (typeof points)[number]) => x(point.at);
  const shape = line<(typeof points)[number]>(across, ({ rate }) => y(rate)).curve(curveMonotoneX);
  const below = area<(typeof points)[number]>(across, y(0), ({ rate }) => y(rate)).curve(curveMonotoneX);
  const time = new Intl.DateTimeFormat('en-GB', {
    hour: '2-digit',
    minute: '2-digit',
    second: '2-digit',
    timeZone: zone,
  });
  const mean = points.reduce((sum, { rate }) => sum + rate, 0) / points.length;
  return (
    <figure>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        role="img"
        aria-label={`Line speed: ${lineRate(mean)} on average, ${lineRate(most)} at the most`}
        className="w-full max-w-[680px]"
      >
        {y.ticks(3).map((tick) => (
          <g key={tick}>
            <path d={`M${LEFT} ${y(tick)}H${WIDTH - 8}`} stroke="var(--line)" />
            <text x={LEFT - 6} y={y(tick) + 4} fontSize="11" textAnchor="end" fill="var(--soft)">
              {lineRate(tick)}
            </text>
          </g>
        ))}
        <path d={below(points) ?? ''} fill="var(--copper-wash)" />
        <path d={shape(points) ?? ''} fill="none" stroke="var(--copper)" strokeWidth="2" />
        <text x={LEFT} y={HEIGHT - 6} fontSize="11" fill="var(--soft)">
          {time.format(first.at)}
        </text>
        <text x={WIDTH - 8} y={HEIGHT - 6} fontSize="11" textAnchor="end" fill="var(--soft)">
          {time.format(last.at)}
        </text>
      </svg>
      <figcaption className="text-[13px] text-soft">
        {lineRate(mean)} on average, {lineRate(most)} at the most
      </figcaption>
    </figure>
  );
}
