/** What an account may still ask of a site, as the site has told it. */
export interface Allowance {
  /** The name of the rule; an account may have several at a time, such as by the hour and by the day. */
  policy: string;
  /** Requests that are left. */
  remaining: number;
  /** Requests in all; undefined where the site has not said. */
  quota: number | undefined;
  /** Until it is full again. */
  seconds: number;
}

/**
 * What a request is for: reading again what has long been live, carrying on what an act on many has sent, looking whether a site
 * has finished, carrying on what somebody has sent, or doing what somebody waits for, such as opening, closing and removing.
 */
export type Use = 'read' | 'many' | 'look' | 'work' | 'urgent';

/** The part of an allowance that is left to more important uses. */
const KEPT_BACK: Record<Use, number> = { read: 0.5, many: 0.4, look: 0.35, work: 0.2, urgent: 0 };
/** What comes again and again takes this part of what is left to its use at the most: looks are there for other things, too. */
const PART_OF_ROUNDS = { read: 1, look: 0.25 };
const LONGEST_REST_SECONDS = 3600;

/**
 * How long to wait before one more request. What looks leave over is there for files and words, and what those leave over for
 * opening and removing, so that a video is never late because others were looked at too often.
 * @param allowances every one that holds for the account now
 * @param chance from 0 up to 1: spreads what waits over the time after
 * @returns seconds; 0 where it may be made now
 */
export function waitForAllowance(allowances: readonly Allowance[], use: Use, chance: number): number {
  const waits = allowances
    .filter(({ remaining, quota = 0 }) => remaining <= Math.floor(quota * KEPT_BACK[use]))
    .map(({ seconds }) => Math.max(0.1, seconds) * (1 + chance / 4));
  return Math.max(0, ...waits);
}

/** Sites tell whole seconds, so that the end of one span may be told twice, so far apart. */
export const SAME_SPAN_SECONDS = 1;

/**
 * Whether a site's word on an allowance says more than that the one request was made which has been counted already.
 * @param told with the answer to that request
 * @param known what held before it was counted
 * @param since seconds from then until it was told
 */
export function saysMore(told: Allowance, known: readonly Allowance[], since: number): boolean {
  const same = known.find(({ policy }) => policy === told.policy);
  if (!same || same.quota !== told.quota) return true;
  const left = same.seconds - since;
  const isSameSpan = left > 0 && Math.abs(left - told.seconds) <= SAME_SPAN_SECONDS;
  return !isSameSpan || told.remaining < same.remaining - 1 || told.remaining > same.remaining;
}

/**
 * How long to rest between rounds that come again and again, so that they are spread over the time until an allowance is full
 * again, and leave most of it to others.
 * @param allowances every one that holds for the account now
 * @param requests of one round
 * @param least seconds to rest where there is enough
 * @returns seconds, an hour at the most
 */
export function restBetweenRounds(
  allowances: readonly Allowance[],
  use: keyof typeof PART_OF_ROUNDS,
  requests: number,
  least: number,
): number {
  const rests = allowances.map(({ remaining, quota = 0, seconds }) => {
    const rounds = ((remaining - Math.floor(quota * KEPT_BACK[use])) * PART_OF_ROUNDS[use]) / requests;
    return seconds / Math.max(1, rounds);
  });
  return Math.min(LONGEST_REST_SECONDS, Math.max(least, ...rests));
}
