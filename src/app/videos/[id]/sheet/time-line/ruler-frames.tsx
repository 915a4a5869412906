'use client';

import type { Placement } from '@/core/framing';
import { toNumber } from '@/core/time';
import { pixelOf, RULER, type RulerSpan } from './ruler-shape';

const [WIDTH, HEIGHT] = [6, 10];

/** Where the frame was put somewhere by hand. */
export function RulerFrames({
  placements,
  span,
  width,
}: {
  placements: readonly Placement[];
  span: RulerSpan;
  width: number;
}) {
  return placements.map(({ at }) => (
    <rect
      key={`${at.num}/${at.den}`}
      x={pixelOf(toNumber(at), span, width) - WIDTH / 2}
      y={RULER.bandBottom - HEIGHT}
      width={WIDTH}
      height={HEIGHT}
      rx={1.5}
      fill="var(--card)"
      stroke="var(--copper)"
      strokeWidth="2"
    />
  ));
}
