import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compare, fraction, minus, rate, toNumber, ZERO } from '../time';
import {
  COMINGS,
  cornerAt,
  cornerOnPath,
  frameIn,
  hasShape,
  middleOf,
  type Placement,
  pathOf,
  SHAPES,
  shotStarts,
  UNPLACED,
  withoutPlacement,
  withPlacement,
} from '.';

const s = (num: number, den = 1) => fraction(num, den);
const at = (time: number, x: number, comes: Placement['comes'] = 'held'): Placement => ({
  ...{ at: s(Math.round(time * 100), 100), x, y: 5000, comes },
});
/** A wide picture of 1,600 by 900 and an upright frame in it. */
const framed = { full: { width: 1600, height: 900 }, frame: { width: 500, height: 900 } };
const left = (placements: Placement[], starts: number[], time: number) =>
  cornerOnPath(
    pathOf(
      placements,
      starts.map((each) => s(each)),
    ),
    s(Math.round(time * 100), 100),
    framed,
  ).x;

describe('the frame of a shape', () => {
  it('is the largest that there is room for, or a part of that', () => {
    // By hand: 1080 × 9 ÷ 16 = 607.5; of an upright picture, 1080 × 1 ÷ 1.
    expect(frameIn({ width: 1920, height: 1080 }, 'upright', 100)).toEqual({ width: 607.5, height: 1080 });
    expect(frameIn({ width: 1920, height: 1080 }, 'square', 50)).toEqual({ width: 540, height: 540 });
    expect(frameIn({ width: 1080, height: 1920 }, 'square', 100)).toEqual({ width: 1080, height: 1080 });
    expect(frameIn({ width: 1000, height: 4000 }, 'upright', 100)).toEqual({ width: 1000, height: 16000 / 9 });
  });

  it('is not asked of a picture that has the shape', () => {
    expect(hasShape({ width: 1080, height: 1920 }, 'upright')).toBe(true);
    expect(hasShape({ width: 608, height: 1080 }, 'upright')).toBe(true);
    expect(hasShape({ width: 1080, height: 1350 }, 'upright')).toBe(false);
    expect(hasShape({ width: 1920, height: 1080 }, 'square')).toBe(false);
  });
});

describe('the way of a frame', () => {
  it('is the middle where nobody has put it anywhere', () => expect(left([], [0, 4], 5)).toBe(550));

  it('holds from the start of the shot that it is put in, however late in it', () => {
    const placed = [at(7, 2000)];
    expect(left(placed, [0, 4, 9], 3.99)).toBe(550);
    expect(left(placed, [0, 4, 9], 4)).toBe(70);
  });

  it('keeps the last in a shot that has none of its own', () => {
    expect(left([at(1, 8000)], [0, 4, 9], 20)).toBe(1030);
  });

  it('jumps, moves all the while, or stays and moves within a second', () => {
    const way = (comes: Placement['comes'], time: number) => left([at(1, 2000), at(5, 8000, comes)], [0], time);
    expect([way('cut', 4.99), way('cut', 5)]).toEqual([70, 1030]);
    expect([way('smooth', 1), way('smooth', 3), way('smooth', 5)]).toEqual([70, 550, 1030]);
    expect([way('held', 4), way('held', 4.5), way('held', 5)]).toEqual([70, 550, 1030]);
  });

  it('moves at once where there is less than a second', () => {
    expect(left([at(1, 2000), at(1.5, 8000)], [0], 1.25)).toBe(550);
  });

  it('never leaves the picture', () => {
    expect(cornerAt({ x: 0, y: 0 }, framed)).toEqual({ x: 0, y: 0 });
    expect(cornerAt({ x: 10_000, y: 10_000 }, framed)).toEqual({ x: 1100, y: 0 });
  });

  const anyPlacements = fc
    .uniqueArray(fc.record({ at: fc.nat(3000), x: fc.nat(10_000), comes: fc.constantFrom(...COMINGS) }), {
      selector: (each) => each.at,
      maxLength: 12,
    })
    .map((all) => all.sort((a, b) => a.at - b.at).map((each) => ({ ...each, at: s(each.at, 25), y: 5000 })));
  const anyStarts = fc.uniqueArray(fc.nat(3000), { maxLength: 8 }).map((all) =>
    shotStarts(
      all.sort((a, b) => a - b),
      rate(25),
    ),
  );

  it('never moves across the border of two shots, in order of time, and is where it was put when it was put there', () => {
    fc.assert(
      fc.property(anyPlacements, anyStarts, (placements, starts) => {
        const path = pathOf(placements, starts);
        expect(compare(path[0]?.at ?? s(1), ZERO)).toBe(0);
        expect(path.at(-1)?.moves).toBeUndefined();
        path.slice(0, -1).forEach((point, index) => {
          const next = path[index + 1] ?? point;
          expect(compare(point.at, next.at)).toBeLessThan(0);
          const crossed = starts.filter((start) => compare(point.at, start) < 0 && compare(start, next.at) <= 0);
          if (point.moves) expect(crossed).toEqual([]);
        });
        for (const placement of placements) {
          const { x } = cornerOnPath(path, placement.at, framed);
          expect(x).toBeCloseTo(cornerAt(placement, framed).x, 6);
        }
      }),
    );
  });

  it('has no jump within a shot but those that are asked for', () => {
    fc.assert(
      fc.property(anyPlacements, anyStarts, (placements, starts) => {
        const path = pathOf(placements, starts);
        const jumps = placements.filter(({ comes }) => comes === 'cut').map((each) => each.at);
        for (const point of path.slice(1)) {
          const just = minus(point.at, s(1, 100_000));
          const [before, after] = [just, point.at].map((time) => cornerOnPath(path, time, framed).x) as [
            number,
            number,
          ];
          const borders = [...jumps, ...starts, ZERO].some((each) => compare(each, point.at) === 0);
          if (!borders) expect(Math.abs(after - before), String(toNumber(point.at))).toBeLessThan(1);
        }
      }),
    );
  });
});

describe('placing by hand', () => {
  it('moves what is there at that moment, keeps the order, and takes one away', () => {
    const two = withPlacement(withPlacement(UNPLACED, s(5), { x: 1, y: 2 }), s(3), { x: 3, y: 4 });
    expect(two.placements.map((each) => toNumber(each.at))).toEqual([3, 5]);
    const cut = { ...two, placements: two.placements.map((each) => ({ ...each, comes: 'cut' as const })) };
    const moved = withPlacement(cut, s(10, 2), { x: 9, y: 9 });
    expect(moved.placements[1]).toEqual({ at: s(5), x: 9, y: 9, comes: 'cut' });
    expect(withoutPlacement(moved, s(5)).placements).toHaveLength(1);
  });

  it('puts the middle back where the corner says, for every shape', () => {
    for (const shape of SHAPES) {
      const frame = frameIn(framed.full, shape, 60);
      const sizes = { full: framed.full, frame };
      expect(middleOf(cornerAt({ x: 4321, y: 5678 }, sizes), sizes)).toEqual({ x: 4321, y: 5678 });
    }
  });

  it('keeps the middle in the picture where a frame is dragged out of it', () => {
    const sizes = { full: { width: 1000, height: 500 }, frame: { width: 200, height: 200 } };
    expect(middleOf({ x: -400, y: -101 }, sizes)).toEqual({ x: 0, y: 0 });
    expect(middleOf({ x: 901, y: 401 }, sizes)).toEqual({ x: 10_000, y: 10_000 });
    expect(middleOf({ x: 400, y: 150 }, sizes)).toEqual({ x: 5000, y: 5000 });
  });
});
