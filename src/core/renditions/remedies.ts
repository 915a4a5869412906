import type { CutFacts } from '../delivery';
import { compare, type Fraction, minus, toNumber, ZERO } from '../time';

/** What is put right in the files that are made of a cut; the cut itself is never changed. */
export interface Remedies {
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

/** What is to be put right in the files of a cut. */
export function remediesFor(kept: RemediesOfCut | undefined, cutId: string | undefined): Remedies {
  if (!kept || kept.cutId !== cutId) return {};
  const { cutId: _, ...remedies } = kept;
  return remedies;
}

/** Where a video with these remedies begins and ends, in exact seconds of the cut. */
export function partOf(
  { from, to }: Remedies,
  { duration }: Pick<CutFacts, 'duration'>,
): { from: Fraction; to: Fraction } {
  return { from: from ?? ZERO, to: to && compare(to, duration) < 0 ? to : duration };
}

/** A moment of a cut as the file shows it that is made of it; undefined where it is left off. */
export function movedMoment(at: Fraction, remedies: Remedies, facts: Pick<CutFacts, 'duration'>): Fraction | undefined {
  const { from, to } = partOf(remedies, facts);
  return compare(at, from) < 0 || compare(at, to) >= 0 ? undefined : minus(at, from);
}

/** How long the file is, in exact seconds. */
export function lengthWith(remedies: Remedies, facts: Pick<CutFacts, 'duration'>): Fraction {
  const { from, to } = partOf(remedies, facts);
  return minus(to, from);
}

/** A moment of a cut in the file that is made of it; one that is left off becomes the first that stays. */
export function nearestMoment(at: Fraction, remedies: Remedies, facts: Pick<CutFacts, 'duration'>): Fraction {
  return movedMoment(at, remedies, facts) ?? ZERO;
}

/** Captions as the file shows them; their times are whole milliseconds. Those that are left off are gone. */
export function movedCaptions<C extends { from: number; to: number }>(
  captions: readonly C[],
  remedies: Remedies,
  facts: Pick<CutFacts, 'duration'>,
): C[] {
  const part = partOf(remedies, facts);
  const [start, end] = [part.from, part.to].map((time) => Math.round(toNumber(time) * 1000)) as [number, number];
  return captions
    .filter(({ from, to }) => to > start && from < end)
    .map((caption) => ({ ...caption, from: Math.max(0, caption.from - start), to: Math.min(end, caption.to) - start }));
}

/** Chapters as the file shows them. One that began in what is left off begins where the file does. */
export function movedChapters<C extends { time: Fraction }>(
  chapters: readonly C[],
  remedies: Remedies,
  facts: Pick<CutFacts, 'duration'>,
): C[] {
  if (!remedies.from && !remedies.to) return [...chapters];
  const { from, to } = partOf(remedies, facts);
  const inside = chapters.filter(({ time }) => compare(time, to) < 0);
  // Of those before the start, the last goes on into what stays.
  const before = inside.filter(({ time }) => compare(time, from) <= 0).slice(-1);
  const after = inside.filter(({ time }) => compare(time, from) > 0);
  return [
    ...before.map((chapter) => ({ ...chapter, time: ZERO })),
    ...after.map((chapter) => ({ ...chapter, time: minus(chapter.time, from) })),
  ];
}
