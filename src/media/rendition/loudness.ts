import type { CutFacts } from '@/core/delivery';
import { lengthOfRecipe, type Recipe } from '@/core/renditions';
import { toDecimal } from '@/core/time';
import { soundFilters, soundMeter } from '../pass/sound';
import { eachFrame } from '../pass/told';
import { FROM_OUTSIDE, type RunOptions, runProgram } from '../program';
import { soundGraph } from './part-graphs';

/** EBU R 128: at most −1 dBTP; an encoder adds a little, so the limiter holds it lower. */
const MOST_TRUE_PEAK = -1;
const LIMIT_DB = -1.7;
const NEAR_LU = 0.2;
const MOST_PASSES = 4;

/** How loud a part of a cut is through some filters. */
export interface Level {
  integratedLufs: number | undefined;
  truePeakDbtp: number;
}

/** What of a recipe says what is heard. */
type Heard = Pick<Recipe, 'from' | 'to' | 'without' | 'silence' | 'swaps'>;

/** How to listen: as programs are run, with the paths of sounds that take over, by their ids. */
export interface Listening extends RunOptions {
  sounds?: ReadonlyMap<string, string>;
}

/** Listens to the part of a cut that a recipe takes, through filters. @throws ProgramError; the signal's reason */
export async function levelThrough(
  path: string,
  facts: CutFacts,
  recipe: Heard,
  filters: readonly string[],
  { sounds = new Map(), ...options }: Listening,
): Promise<Level> {
  const { audio } = facts;
  const all = [...filters, soundFilters(audio?.channels ?? 0, 'pipe\\\\:3')];
  const graph = soundGraph(recipe, facts, sounds, all);
  const meter = soundMeter({ channels: audio?.channels ?? 0, sampleRate: audio?.sampleRate || 48_000, seconds: 0 });
  const args = [
    ...[
      '-v',
      'error',
      '-nostdin',
      ...FROM_OUTSIDE,
      ...(recipe.from ? ['-ss', toDecimal(recipe.from, 6)] : []),
      '-i',
      path,
    ],
    ...(graph?.inputs ?? []),
    ...(recipe.from || recipe.to ? ['-t', toDecimal(lengthOfRecipe(recipe, facts), 6)] : []),
    ...(graph ? ['-filter_complex', graph.filters, '-map', `[${graph.out}]`] : ['-map', '0:a:0', '-af', all.join(',')]),
    ...['-f', 'null', '-'],
  ];
  await runProgram('ffmpeg', args, options, (_, third) => eachFrame(third, (frame) => meter.hear(frame)));
  const { sound } = meter.end({ num: 0, den: 1 });
  return { integratedLufs: sound.integratedLufs, truePeakDbtp: sound.truePeakDbtp };
}

const gainFilters = (gain: number, limited: boolean) => [
  `volume=${gain.toFixed(2)}dB`,
  // Four times as many samples see the peaks that lie between them (ITU-R BS.1770-4, annex 2).
  ...(limited
    ? ['aresample=192000', `alimiter=limit=${(10 ** (LIMIT_DB / 20)).toFixed(4)}:level=false:attack=5:release=80`]
    : []),
];

/**
 * Filters that bring the sound to a loudness, found by listening first: one gain for all of it, and a limiter only where
 * peaks would reach further than they may. What it comes to is returned with them.
 * @param target LUFS
 * @throws ProgramError; the signal's reason where it aborts
 */
export async function filtersForLoudness(
  path: string,
  facts: CutFacts,
  recipe: Heard,
  target: number,
  options: Listening = {},
): Promise<{ filters: string[]; before: Level; after: Level }> {
  const before = await levelThrough(path, facts, recipe, [], options);
  if (before.integratedLufs === undefined) return { filters: [], before, after: before };
  let gain = target - before.integratedLufs;
  const peak = before.truePeakDbtp + gain;
  if (peak <= MOST_TRUE_PEAK) {
    return { filters: gainFilters(gain, false), before, after: { integratedLufs: target, truePeakDbtp: peak } };
  }
  let after = before;
  for (let pass = 1; pass <= MOST_PASSES; pass += 1) {
    after = await levelThrough(path, facts, recipe, gainFilters(gain, true), options);
    const off = target - (after.integratedLufs ?? target);
    if (Math.abs(off) <= NEAR_LU || pass === MOST_PASSES) break;
    gain += off;
  }
  return { filters: gainFilters(gain, true), before, after };
}
