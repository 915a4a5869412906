import { cornerAt, type Framed, type PathPoint } from '@/core/framing';
import type { PictureRecipe } from '@/core/renditions';
import { type Fraction, minus, over, toNumber, ZERO } from '@/core/time';

const exact = (value: number) => value.toFixed(4);

/** What the filter counts one side of the corner by: seconds of the file that is made. */
function sideExpression(
  path: readonly PathPoint[],
  side: 'x' | 'y',
  framed: Framed,
  { time, early }: { time: (at: Fraction) => number; early: number },
) {
  const terms = path.map((point, index) => {
    const next = path[index + 1];
    const [from, to] = [time(point.at), next && time(next.at)];
    const corner = cornerAt(point, framed)[side];
    const inside = [
      ...(index === 0 ? [] : [`gte(t,${exact(from - early)})`]),
      ...(to === undefined ? [] : [`lt(t,${exact(to - early)})`]),
    ];
    if (!point.moves || !next || to === undefined) return [...inside, exact(corner)].join('*');
    // The same easing as core's: st() keeps the part that is over, ld() reads it (ffmpeg-utils, expression evaluation).
    const part = `(st(0,clip((t-${exact(from)})/${exact(to - from)},0,1))*ld(0)*(3-2*ld(0)))`;
    const way = cornerAt(next, framed)[side] - corner;
    return [...inside, `(${exact(corner)}+${exact(way)}*${part})`].join('*');
  });
  return `floor(0.5+${terms.join('+')})`;
}

/**
 * Cuts the frame out of a picture that has its full size. Whole pixels of the file that is made: with colour at full
 * resolution, so that it does not shift against the brightness where the frame stands on an odd one.
 * @param from where the file begins, in exact seconds of the cut
 * @param rate frames a second of what comes in
 */
export function frameFilters(
  { framed, width, height }: Pick<PictureRecipe, 'framed' | 'width' | 'height'>,
  from: Fraction = ZERO,
  rate: Fraction = { num: 25, den: 1 },
): string[] {
  if (!framed) return [];
  const sizes = { full: framed.full, frame: { width, height } };
  // Half a frame early: times of frames are rounded by containers, and the frame at the moment itself is to be in.
  const early = toNumber(over({ num: 1, den: 2 }, rate));
  const time = (at: Fraction) => toNumber(minus(at, from));
  const [x, y] = (['x', 'y'] as const).map((side) => sideExpression(framed.path, side, sizes, { time, early }));
  return ['format=yuv444p', `crop=${width}:${height}:x='${x}':y='${y}':exact=1`];
}
