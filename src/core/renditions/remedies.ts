import type { CutFacts } from '../delivery';
import { compare, type Fraction, minus, ZERO } from '../time';

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
}

export const REMEDY_NAMES = ['start', 'end', 'loudness', 'index', 'sphere'] as const;

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
