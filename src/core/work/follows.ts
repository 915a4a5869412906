/** What can end a try of some piece of work. */
export type Happened =
  /** The other side asks to come back later, after so many seconds where it says so. */
  | { what: 'busy'; retryAfter?: number }
  /** The other side cannot be reached, or the line broke. */
  | { what: 'unreachable' }
  /** The fault of the machine itself: a program is missing, the disk is full, the database is away. Never the work's. */
  | { what: 'machine' }
  | { what: 'unexpected' }
  /** It took longer than it may. Another try may go better, but each costs much. */
  | { what: 'too long' }
  /** The other side says no; only a person can change that. */
  | { what: 'refused' };

/** What follows: the work is tried again after so many seconds, or it is for a person now. */
export type Follows = { next: 'later'; seconds: number } | { next: 'a person' };

/** How often work is tried that fails for a reason which nobody knows. */
export const UNEXPECTED_TRIES = 5;
const TOO_LONG_TRIES = 1;
const TRIES_AT_ITS_MOMENT = 60;

const LONGEST_PAUSE_SECONDS: Record<Exclude<Happened['what'], 'refused'>, number> = {
  busy: 60,
  unreachable: 60,
  machine: 300,
  unexpected: 300,
  'too long': 300,
};

/**
 * How long to wait before the next try: it doubles with every try up to a bound, and lies somewhere in the upper half, so
 * that many that failed together do not all come back together.
 * @param tries how often it has failed, this time counted in
 * @param most the longest pause in seconds
 * @param chance from 0 up to 1
 * @returns seconds
 */
export function pauseAfter(tries: number, most: number, chance: number): number {
  const whole = Math.min(most, 2 ** Math.min(30, Math.max(0, tries - 1)));
  return whole * (0.5 + chance / 2);
}

/**
 * What follows when a try has ended badly. The one policy for drops and for jobs.
 * @param tries how often it has failed in a row, this time counted in
 * @param chance from 0 up to 1: spreads the tries of many
 * @param atItsMoment whether it should be done by now: it is tried each second for a while
 */
export function whatFollows(happened: Happened, tries: number, chance: number, atItsMoment = false): Follows {
  if (happened.what === 'refused') return { next: 'a person' };
  if (happened.what === 'unexpected' && tries > UNEXPECTED_TRIES) return { next: 'a person' };
  if (happened.what === 'too long' && tries > TOO_LONG_TRIES) return { next: 'a person' };
  if (happened.what === 'busy' && happened.retryAfter !== undefined) {
    return { next: 'later', seconds: happened.retryAfter };
  }
  if (atItsMoment && tries <= TRIES_AT_ITS_MOMENT) return { next: 'later', seconds: 1 };
  return { next: 'later', seconds: pauseAfter(tries, LONGEST_PAUSE_SECONDS[happened.what], chance) };
}
