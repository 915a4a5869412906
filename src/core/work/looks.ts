/** The longest time between two looks at something that a machine works on, and at something that people review. */
export const LONGEST_BETWEEN_LOOKS = { processing: 60, review: 900 } as const;

/**
 * After how many seconds a site is looked at again that has not finished yet. What has just begun may end at any moment;
 * what has taken an hour will hardly end within the next second. So looks grow apart with age.
 * @param ageSeconds how long it has been at this stop
 */
export function nextLookAfter(ageSeconds: number, kind: keyof typeof LONGEST_BETWEEN_LOOKS): number {
  return Math.min(LONGEST_BETWEEN_LOOKS[kind], Math.max(1, ageSeconds / 10));
}
