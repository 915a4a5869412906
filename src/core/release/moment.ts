import { Temporal } from 'temporal-polyfill';

/**
 * A moment as it was said: the time on the wall and the IANA zone that it was said in. Its instant is worked out each time, so
 * that it keeps the wall time where the zone's rules change before it comes.
 */
export interface Moment {
  /** Date and time as in RFC 9557, without zone or offset: 2026-11-28T18:30:00. */
  wall: string;
  zone: string;
  /** Which of two it is, where clocks go back and the time comes twice; the first where not said. */
  which?: 'first' | 'second';
}

/** A zone's name as the engine writes it, or undefined where there is no such zone. */
export function zoneNamed(name: string): string | undefined {
  try {
    const { timeZoneId } = Temporal.Instant.fromEpochMilliseconds(0).toZonedDateTimeISO(name);
    // An offset is no zone: it knows nothing of summer time.
    return /^[+-]\d/.test(timeZoneId) ? undefined : timeZoneId;
  } catch {
    return undefined;
  }
}

/**
 * The instants, in UTC, at which the clocks of a zone show a time: none where they jump over it, two where they go back.
 * @throws RangeError where the wall time is no date and time, or there is no such zone
 */
export function instantsOf({ wall, zone }: Moment): string[] {
  const plain = Temporal.PlainDateTime.from(wall, { overflow: 'reject' });
  const found = (['earlier', 'later'] as const).map((disambiguation) =>
    plain.toZonedDateTime(zone, { disambiguation }),
  );
  const shown = found.filter((each) => each.toPlainDateTime().equals(plain));
  return [...new Set(shown.map((each) => each.toInstant().toString()))];
}

/**
 * The instant of a moment. A time that the clocks have come to jump over since it was said is so much later, as if they had
 * not (RFC 5545 §3.3.5).
 */
export function instantOf({ wall, zone, which }: Moment): Date {
  const [first, second] = instantsOf({ wall, zone });
  const instant = which === 'second' && second ? second : first;
  if (instant) return new Date(instant);
  const moved = Temporal.PlainDateTime.from(wall).toZonedDateTime(zone, { disambiguation: 'compatible' });
  return new Date(moved.epochMilliseconds);
}

/** The moment in a zone at an instant, to the second. */
export function momentAt(instant: Date, zone: string): Moment {
  const there = Temporal.Instant.fromEpochMilliseconds(instant.getTime()).toZonedDateTimeISO(zone);
  const wall = there.toPlainDateTime().round('second').toString();
  const [, second] = instantsOf({ wall, zone });
  const isSecond = second !== undefined && Math.abs(Date.parse(second) - instant.getTime()) < 1000;
  return { wall, zone, ...(isSecond && { which: 'second' as const }) };
}

/** How the clocks jump over a time that does not exist: the wall times before and after, as in 02:00 and 03:00. */
export function jumpOver({ wall, zone }: Moment): { from: string; to: string } {
  const after = Temporal.PlainDateTime.from(wall).toZonedDateTime(zone, { disambiguation: 'later' });
  const jump = after.getTimeZoneTransition('previous') ?? after;
  const before = jump.subtract({ nanoseconds: 1 });
  const from = before.toPlainDateTime().round('minute');
  const to = jump.toPlainDateTime();
  // Where a whole day is left out, the one before it ends at its last minute.
  const ends = from.toPlainDate().equals(to.toPlainDate())
    ? from
    : before.toPlainDateTime().round({ smallestUnit: 'minute', roundingMode: 'floor' });
  return { from: ends.toString(), to: to.toString() };
}
