/** Chance that is the same for the same seed. */
export interface Chance {
  /** From 0 up to 1. */
  next(): number;
  /** A whole number from `least` up to and including `most`. */
  between(least: number, most: number): number;
  of<T>(things: readonly T[]): T;
}

/** mulberry32 (Tommy Ettinger, public domain), from memory: 32 bits of state are enough to choose faults. */
export function chanceFrom(seed: number): Chance {
  let state = seed >>> 0;
  const next = () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), state | 1);
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61);
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 2 ** 32;
  };
  const between = (least: number, most: number) => least + Math.floor(next() * (most - least + 1));
  return {
    next,
    between,
    of: (things) => {
      const chosen = things[between(0, things.length - 1)];
      if (chosen === undefined) throw new RangeError('There is nothing to choose from');
      return chosen;
    },
  };
}
