import type { CutMeasures } from '../delivery';
import { type Fraction, toNumber } from '../time';

/** What of a cut its likeness is told by: its measures, and the exact frames a second that its shots are counted in. */
export interface Looked {
  measures: Pick<CutMeasures, 'loudness' | 'shots'>;
  rate: Fraction;
}

/** Loudness is compared by the second: a new encode shifts it by some milliseconds. */
const BIN_SECONDS = 1;
/** So far apart, in LU, two seconds of the same sound may be after a new encode. */
const NEAR_LU = 1.5;
const SILENCE = -60;
/** Sound that hardly changes, and a video of few shots, are like many others. */
const LEAST_SPREAD_LU = 1.5;
const LEAST_BINS = 12;
const LEAST_SHOTS = 4;
/** So near each other, in seconds, two cuts of the picture are the same: two frames at 24 a second. */
const NEAR_SHOT_SECONDS = 0.085;
const ALIKE = 0.85;
/** A part that was taken out of a video is another video. */
const LEAST_COMMON = 0.6;
/** Beginnings that differ by more are looked at as another video. */
const MOST_APART_SECONDS = 15;

function bins({ loudness: { step, tenths } }: Looked['measures'], offset: number): number[] {
  const all: number[] = [];
  tenths.forEach((value, index) => {
    const at = Math.floor(((index * step) / 1000 + offset) / BIN_SECONDS);
    if (at >= 0) all[at] = Math.max(all[at] ?? -70, value / 10);
  });
  return Array.from(all, (value) => value ?? -70);
}

const middle = (values: readonly number[]) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? 0;

/** How much of the sound is the same, whatever its level; undefined where it is like many others. */
function soundLikeness(a: readonly number[], b: readonly number[]): number | undefined {
  const pairs = a
    .map((value, index): [number, number] => [value, b[index] ?? Number.NaN])
    .filter(([one, other]) => one > SILENCE && other > SILENCE);
  if (pairs.length < LEAST_BINS) return undefined;
  const mean = pairs.reduce((sum, [one]) => sum + one, 0) / pairs.length;
  const spread = Math.sqrt(pairs.reduce((sum, [one]) => sum + (one - mean) ** 2, 0) / pairs.length);
  if (spread < LEAST_SPREAD_LU) return undefined;
  // A new level moves all of it alike.
  const level = middle(pairs.map(([one, other]) => other - one));
  const same = pairs.filter(([one, other]) => Math.abs(other - one - level) <= NEAR_LU).length;
  return same / pairs.length;
}

/** How many of the cuts of the picture are at the same moments; undefined where there are too few. */
function shotLikeness(a: readonly number[], b: readonly number[]): number | undefined {
  if (Math.min(a.length, b.length) < LEAST_SHOTS) return undefined;
  const near = (time: number, others: readonly number[]) =>
    others.some((other) => Math.abs(other - time) <= NEAR_SHOT_SECONDS);
  const both = a.filter((time) => near(time, b)).length + b.filter((time) => near(time, a)).length;
  return both / (a.length + b.length);
}

/**
 * Whether two cuts show much the same, also where one is a new encode, louder, of another size, or has its start or end left
 * off. Told by when shots change and how the loudness goes over time, which both survive that.
 */
export function areAlike(one: Looked, other: Looked): boolean {
  const times = ({ measures, rate }: Looked) => measures.shots.map((frame) => frame / toNumber(rate));
  const [a, b] = [times(one), times(other)];
  // Both start alike, or one of the first shots of the one is one of the first of the other.
  const offsets = [0, ...a.slice(0, 4).flatMap((first) => b.slice(0, 4).map((second) => first - second))];
  const [lengthA, lengthB] = [lengthOf(one.measures, a), lengthOf(other.measures, b)];
  return offsets
    .filter((offset) => Math.abs(offset) <= MOST_APART_SECONDS)
    .some((offset) => {
      // Only what both have can be compared, and it has to be most of both.
      const [from, to] = [Math.max(0, offset), Math.min(lengthA, lengthB + offset)];
      if (to - from < Math.max(lengthA, lengthB) * LEAST_COMMON) return false;
      const inBoth = (time: number) => time >= from && time <= to;
      const shots = shotLikeness(a.filter(inBoth), b.map((time) => time + offset).filter(inBoth));
      const sound = soundLikeness(bins(one.measures, 0), bins(other.measures, offset));
      const told = [shots, sound].filter((each) => each !== undefined);
      return told.length > 0 && told.every((each) => each >= ALIKE);
    });
}

const lengthOf = ({ loudness: { step, tenths } }: Looked['measures'], shots: readonly number[]) =>
  Math.max((tenths.length * step) / 1000, shots.at(-1) ?? 0);
