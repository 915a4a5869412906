import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fewestThatServe } from './cover';

/** The fewest by trying every choice: an independent search, for small cases only. */
function fewestByTrying(accepts: string[][], free: ReadonlySet<string>): number {
  const [first, ...rest] = accepts;
  const tried = (chosen: string[], left: string[][]): number => {
    const [next, ...others] = left;
    if (!next) return new Set(chosen.filter((name) => !free.has(name))).size;
    return Math.min(...next.map((name) => tried([...chosen, name], others)));
  };
  return first ? tried([], [first, ...rest]) : 0;
}

const lists = fc.array(fc.uniqueArray(fc.constantFrom('a', 'b', 'c', 'd', 'e'), { minLength: 1, maxLength: 4 }), {
  maxLength: 6,
});

describe('the fewest that serve all', () => {
  it('are as few as trying every choice finds, and each serves its demand', () => {
    fc.assert(
      fc.property(lists, fc.uniqueArray(fc.constantFrom('a', 'b', 'c')), (accepts, there) => {
        const free: ReadonlySet<string> = new Set(there);
        const chosen = fewestThatServe(accepts, free);
        for (const [index, name] of chosen.entries()) expect(accepts[index]).toContain(name);
        const cost = new Set(chosen.filter((name) => !free.has(name))).size;
        expect(cost).toBe(fewestByTrying(accepts, free));
      }),
    );
  });

  it('serve also where there are too many for an exact search', () => {
    const many = Array.from({ length: 40 }, (_, index) => [`own ${index}`, `pair ${index >> 1}`, 'all']);
    expect(new Set(fewestThatServe(many))).toEqual(new Set(['all']));
  });

  it('are the better ones where that costs nothing', () => {
    expect(fewestThatServe([['best', 'good']])).toEqual(['best']);
    expect(
      fewestThatServe([
        ['best', 'good'],
        ['good', 'bad'],
      ]),
    ).toEqual(['good', 'good']);
  });
});
