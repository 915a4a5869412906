import type { CutFacts, CutSpan } from '../delivery';
import { compare, type Fraction, minus, plus, toNumber, ZERO } from '../time';

/** A span over which another sound takes the place of the cut's own. */
export interface SoundSwap extends CutSpan {
  /** The id of the sound; it begins where the span does, and where it is shorter, the rest is silent. */
  sound: string;
}

/** What is done to parts of a cut that somebody has rights in; times are exact seconds of the cut. */
export interface Mends {
  /** Where nothing is heard. */
  silence?: CutSpan[];
  /** Where something else is heard. */
  swaps?: SoundSwap[];
  /** What is left out altogether. */
  without?: CutSpan[];
}

/** Mends with the cut that they are for. */
export interface MendsOfCut extends Mends {
  cutId: string;
}

/** What is put right in the files that are made of a cut; the cut itself is never changed. */
export interface Remedies extends Mends {
  /** Where the video begins, in exact seconds of the cut; what lies before is left off. */
  from?: Fraction;
  /** Where it ends. */
  to?: Fraction;
  /** The loudness to bring the sound to, in LUFS. */
  loudness?: number;
  /** The index goes before the pictures. */
  indexFirst?: true;
  /** The picture is a whole sphere, and its metadata is to say so. */
  sphere?: true;
  /** The picture is encoded again where no set asks for that: whole frames, evenly, in standard range. */
  convert?: true;
}

/** Remedies with the cut that they are for: another cut has other faults. */
export interface RemediesOfCut extends Remedies {
  cutId: string;
}

/** What is to be put right in the files of a cut. @param mends for one channel alone */
export function remediesFor(kept: RemediesOfCut | undefined, cutId: string | undefined, mends?: MendsOfCut): Remedies {
  const ofCut = <K extends { cutId: string }>(each: K | undefined): Omit<K, 'cutId'> | undefined => {
    if (!each || each.cutId !== cutId) return undefined;
    const { cutId: _, ...rest } = each;
    return rest;
  };
  return { ...ofCut(kept), ...ofCut(mends) };
}

/** Where a video with these remedies begins and ends, in exact seconds of the cut. */
export function partOf(
  { from, to }: Remedies,
  { duration }: Pick<CutFacts, 'duration'>,
): { from: Fraction; to: Fraction } {
  return { from: from ?? ZERO, to: to && compare(to, duration) < 0 ? to : duration };
}

const earlier = (a: Fraction, b: Fraction): Fraction => (compare(a, b) <= 0 ? a : b);
const later = (a: Fraction, b: Fraction): Fraction => (compare(a, b) >= 0 ? a : b);

/** The parts of a cut that a file with these remedies shows, in order, in exact seconds of the cut. */
export function keptParts(remedies: Remedies, facts: Pick<CutFacts, 'duration'>): CutSpan[] {
  const all = partOf(remedies, facts);
  const out = [...(remedies.without ?? [])].sort((a, b) => compare(a.from, b.from));
  const kept: CutSpan[] = [];
  let { from } = all;
  for (const span of out) {
    const to = earlier(span.from, all.to);
    if (compare(to, from) > 0) kept.push({ from, to });
    from = later(from, span.to);
  }
  if (compare(all.to, from) > 0) kept.push({ from, to: all.to });
  return kept;
}

/** How much of a cut up to a moment a file shows: where the moment is in the file, or would be. */
function shownBefore(at: Fraction, parts: readonly CutSpan[]): Fraction {
  let shown = ZERO;
  for (const { from, to } of parts) {
    if (compare(at, from) <= 0) break;
    shown = plus(shown, minus(earlier(at, to), from));
  }
  return shown;
}

/** A moment of a cut as the file shows it that is made of it; undefined where it is left off. */
export function movedMoment(at: Fraction, remedies: Remedies, facts: Pick<CutFacts, 'duration'>): Fraction | undefined {
  const parts = keptParts(remedies, facts);
  const inside = parts.some(({ from, to }) => compare(at, from) >= 0 && compare(at, to) < 0);
  return inside ? shownBefore(at, parts) : undefined;
}

/** A moment of the file in the cut that it was made of: the way back of `movedMoment`. */
export function momentInCut(at: Fraction, remedies: Remedies, facts: Pick<CutFacts, 'duration'>): Fraction {
  const parts = keptParts(remedies, facts);
  let left = at;
  for (const { from, to } of parts) {
    const length = minus(to, from);
    if (compare(left, length) < 0) return plus(from, left);
    left = minus(left, length);
  }
  return parts.at(-1)?.to ?? ZERO;
}

/** How long the file is, in exact seconds. */
export function lengthWith(remedies: Remedies, facts: Pick<CutFacts, 'duration'>): Fraction {
  return keptParts(remedies, facts).reduce((all, { from, to }) => plus(all, minus(to, from)), ZERO);
}

/** A moment of a cut in the file that is made of it; one that is left off becomes the first that stays. */
export function nearestMoment(at: Fraction, remedies: Remedies, facts: Pick<CutFacts, 'duration'>): Fraction {
  const next = shownBefore(at, keptParts(remedies, facts));
  return compare(next, lengthWith(remedies, facts)) < 0 ? next : ZERO;
}

/** Captions as the file shows them; their times are whole milliseconds. Those that are left off are gone. */
export function movedCaptions<C extends { from: number; to: number }>(
  captions: readonly C[],
  remedies: Remedies,
  facts: Pick<CutFacts, 'duration'>,
): C[] {
  const milliseconds = (time: Fraction) => Math.round(toNumber(time) * 1000);
  const parts = keptParts(remedies, facts).map(({ from, to }) => ({ from: milliseconds(from), to: milliseconds(to) }));
  const moved = (at: number) =>
    parts.reduce((shown, part) => shown + Math.max(0, Math.min(at, part.to) - part.from), 0);
  return captions
    .map((caption) => ({ ...caption, from: moved(caption.from), to: moved(caption.to) }))
    .filter(({ from, to }) => to > from);
}

/**
 * Chapters as the file shows them. One that began in what is left off begins where the video goes on, unless another begins
 * there.
 */
export function movedChapters<C extends { time: Fraction }>(
  chapters: readonly C[],
  remedies: Remedies,
  facts: Pick<CutFacts, 'duration'>,
): C[] {
  if (!remedies.from && !remedies.to && !remedies.without?.length) return [...chapters];
  const parts = keptParts(remedies, facts);
  const length = lengthWith(remedies, facts);
  const moved = chapters
    .map((chapter) => ({ ...chapter, time: shownBefore(chapter.time, parts) }))
    .filter(({ time }) => compare(time, length) < 0);
  return moved.filter(({ time }, index) => {
    const next = moved[index + 1];
    return !next || compare(next.time, time) > 0;
  });
}
