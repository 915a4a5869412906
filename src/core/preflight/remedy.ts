import type { CutFacts, CutMeasures } from '../delivery';
import type { Remedies } from '../renditions';
import { compare, type Fraction, minus, over, ZERO } from '../time';
import type { Finding } from './finding';

/** How a finding can be put right in the files that go out. */
export type RemedyOffer =
  /** Leaves off what lies before or after a moment, in exact seconds of the file. */
  | { way: 'start' | 'end'; at: Fraction }
  | { way: 'loudness' }
  | { way: 'index' }
  | { way: 'sphere' }
  | { way: 'convert' };

/** Rules whose finding ends where the part that stays begins, or begins where it ends. */
const AT_END = ['black at the end', 'frozen at the end', 'silent at the end', 'sound after the picture'];
const AT_START = ['black at the start'];
/** What is put right where the picture is encoded again. */
const CONVERTED = ['varying rate', 'interlaced', 'HDR'];
const LOUDNESS = ['too quiet', 'too loud', 'true peak'];

/** The one remedy that there is for a finding; undefined where only a new export helps. */
export function remedyOffer({ rule, span }: Pick<Finding, 'rule' | 'span'>): RemedyOffer | undefined {
  if (span && AT_END.includes(rule)) return { way: 'end', at: span.from };
  if (span && AT_START.includes(rule)) return { way: 'start', at: span.to };
  if (LOUDNESS.includes(rule)) return { way: 'loudness' };
  if (rule === 'index at the end') return { way: 'index' };
  if (CONVERTED.includes(rule)) return { way: 'convert' };
  return rule === 'flat sphere' ? { way: 'sphere' } : undefined;
}

/** Whether a finding is put right by what was chosen. */
export function isPutRight(finding: Pick<Finding, 'rule' | 'span'>, remedies: Remedies): boolean {
  const offer = remedyOffer(finding);
  switch (offer?.way) {
    case 'end':
      return remedies.to !== undefined && compare(remedies.to, offer.at) <= 0;
    case 'start':
      return remedies.from !== undefined && compare(remedies.from, offer.at) >= 0;
    case 'loudness':
      return remedies.loudness !== undefined;
    case 'index':
      return remedies.indexFirst === true;
    case 'sphere':
      return remedies.sphere === true;
    case 'convert':
      return remedies.convert === true;
    default:
      return false;
  }
}

/** The remedies with the one that is offered. @param loudness LUFS, where that is what is asked for */
export function withRemedy(remedies: Remedies, offer: RemedyOffer, loudness: number): Remedies {
  switch (offer.way) {
    case 'end':
      return { ...remedies, to: offer.at };
    case 'start':
      return { ...remedies, from: offer.at };
    case 'loudness':
      return { ...remedies, loudness };
    case 'index':
      return { ...remedies, indexFirst: true };
    case 'sphere':
      return { ...remedies, sphere: true };
    case 'convert':
      return { ...remedies, convert: true };
  }
}

/** EBU R 128 asks for −23 LUFS; −14 and −16 are what people go by on the web (common practice, no source). */
export const LOUDNESS_TARGETS = [-14, -16, -23] as const;
const MOST_TRUE_PEAK = -1;

/** The sound before, and as it will be at a loudness: levels in LUFS and dBTP. */
export function levelsAt(
  measures: CutMeasures | undefined,
  target: number,
): { before: number; peakBefore: number; after: number; peakAfter: number; limited: boolean } | undefined {
  const sound = measures?.sound;
  if (sound?.integratedLufs === undefined) return undefined;
  const peak = sound.truePeakDbtp + target - sound.integratedLufs;
  const limited = peak > MOST_TRUE_PEAK;
  return {
    before: sound.integratedLufs,
    peakBefore: sound.truePeakDbtp,
    after: target,
    peakAfter: limited ? MOST_TRUE_PEAK : peak,
    limited,
  };
}

/** Moments of the file to look at before a part is left off: a second apart, the nearest to the cut first. */
export function momentsAround(
  offer: RemedyOffer,
  { duration, video }: CutFacts,
): { stays: Fraction; goes: Fraction } | undefined {
  if (offer.way !== 'start' && offer.way !== 'end') return undefined;
  const frame = over({ num: 1, den: 1 }, video.rate);
  const before = lessOne(offer.at, frame);
  const last = lessOne(duration, frame);
  if (offer.way === 'end') return { stays: before, goes: compare(offer.at, last) < 0 ? offer.at : last };
  return { stays: compare(offer.at, last) < 0 ? offer.at : last, goes: before };
}

function lessOne(at: Fraction, frame: Fraction): Fraction {
  const before = minus(at, frame);
  return before.num <= 0 ? ZERO : before;
}
