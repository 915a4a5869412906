/** The bands of the ruler, in pixels from its top. */
export const RULER = {
  height: 112,
  /** Where sound, shots and flags stand. */
  bandTop: 18,
  bandBottom: 74,
  chaptersTop: 79,
  chaptersHeight: 20,
} as const;

/** The part of the cut that the ruler shows, in seconds. */
export interface RulerSpan {
  from: number;
  to: number;
}

/** Pixels of a moment. */
export function pixelOf(seconds: number, { from, to }: RulerSpan, width: number): number {
  return ((seconds - from) / (to - from)) * width;
}
