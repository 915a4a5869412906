import { pauseAfter } from './follows';

/** After how many failures in a row, of whatever work, a site is left alone for a while. */
export const FAILURES_UNTIL_REST = 3;

const LONGEST_REST_SECONDS = 60;

/**
 * For how long a site rests that has failed so often in a row. After the rest one piece of work tries it; only when that
 * has gone well do the others follow.
 * @param failures in a row, of all work at the site
 * @param chance from 0 up to 1
 * @param retryAfter seconds, where the site itself says when to come back: it is taken at its word
 * @returns seconds, or undefined where the site is not to rest yet
 */
export function restAfter(failures: number, chance: number, retryAfter?: number): number | undefined {
  if (failures < FAILURES_UNTIL_REST) return undefined;
  if (retryAfter !== undefined) return retryAfter;
  return pauseAfter(failures - FAILURES_UNTIL_REST + 2, LONGEST_REST_SECONDS, chance);
}
