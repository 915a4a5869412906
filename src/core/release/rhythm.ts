import type { Options } from 'rrule';
import * as rrule from 'rrule';
import { instantsOf, type Moment, momentAt, zoneNamed } from './moment';

// Node.js takes the package's CommonJS form, which has all names in its default export; bundlers take the other one.
const { Frequency, RRule } = 'RRule' in rrule ? rrule : (rrule as { default: typeof rrule }).default;

/** When the videos of a series open, again and again: a rule of days, and a time by the clocks of a zone. */
export interface Rhythm {
  /** The days as an RRULE of RFC 5545 §3.3.10, without times: FREQ=WEEKLY;BYDAY=FR. */
  rule: string;
  /** The date that it counts from: every second week is counted from here. */
  from: string;
  /** The time of day: 18:00. */
  time: string;
  zone: string;
}

const TIME = /^([01]\d|2[0-3]):[0-5]\d$/;
const OFTENEST: readonly rrule.Frequency[] = [Frequency.YEARLY, Frequency.MONTHLY, Frequency.WEEKLY, Frequency.DAILY];
const TIME_PARTS: readonly (keyof Options)[] = ['byhour', 'byminute', 'bysecond', 'dtstart', 'tzid'];
/** So many days of a rule are looked at for a place: years, for any rhythm that somebody keeps. */
const MOST_DAYS = 1000;

/** What is wrong with a rhythm, in a sentence; undefined where nothing is. */
export function rhythmFinding({ rule, from, time, zone }: Rhythm): string | undefined {
  if (!TIME.test(time)) return 'A time of day looks like 18:00.';
  if (Number.isNaN(Date.parse(`${from}T00:00:00Z`))) return 'The date that it counts from looks like 2026-11-27.';
  if (zoneNamed(zone) === undefined) return 'Name the time zone by place, such as Europe/Berlin.';
  try {
    const options = RRule.parseString(rule);
    if (options.freq === undefined || !OFTENEST.includes(options.freq))
      return 'A rhythm is by days: FREQ=WEEKLY;BYDAY=FR.';
    if (TIME_PARTS.some((part) => options[part] !== undefined))
      return 'The time of day stands beside the rule, not in it.';
    return undefined;
  } catch {
    return 'The rule is not understood. It looks like FREQ=WEEKLY;BYDAY=FR or FREQ=MONTHLY;BYMONTHDAY=1.';
  }
}

/**
 * The places of a rhythm after an instant, in order. A day on which the clocks jump over the time has none.
 * @param taken instants at which something opens already, in milliseconds
 * @param before an instant from which on none is asked for
 */
export function freePlaces(
  { rule, from, time, zone }: Rhythm,
  after: Date,
  taken: ReadonlySet<number>,
  most: number,
  before?: Date,
): Moment[] {
  // Days and clocks of the zone, as if it were UTC: that is how the package counts floating times.
  const days = new RRule({ ...RRule.parseString(rule), dtstart: new Date(`${from}T${time}:00Z`) });
  const first = new Date(`${momentAt(after, zone).wall.slice(0, 10)}T00:00:00Z`);
  const places: Moment[] = [];
  let looked = 0;
  // The package counts from the first day for each question: one is asked for all of them.
  days.all((day) => {
    if (day < first) return true;
    looked += 1;
    const moment: Moment = { wall: day.toISOString().slice(0, 19), zone };
    const [said] = instantsOf(moment);
    const instant = said === undefined ? undefined : new Date(said);
    if (before && instant && instant >= before) return false;
    if (instant && instant > after && !taken.has(instant.getTime())) places.push(moment);
    return looked < MOST_DAYS && places.length < most;
  });
  return places;
}

/** A rhythm as people say it: every week on Friday at 18:00. */
export const rhythmInWords = ({ rule, time }: Rhythm): string => `${RRule.fromString(rule).toText()} at ${time}`;
