import { en, type ParsedResult } from 'chrono-node';
import { Temporal } from 'temporal-polyfill';
import { dayOf } from './in-words';
import { atInstant, resolved, type SaidTime, unsaid } from './said-time';

/** Short ways to write a date or time that the parser does not know: 28.11. and 18h30, and 18h where it is no length. */
function rewritten(text: string): string {
  const dated = text.replace(/\b(\d{1,2})\.(\d{1,2})\.(?=\s|$)/g, '$1/$2').replace(/\b(\d{1,2})h(\d{2})\b/gi, '$1:$2');
  return /\b(?:in|from now|later|ago|hence)\b/i.test(dated) ? dated : dated.replace(/\b(\d{1,2}) ?h\b/gi, '$1:00');
}

/**
 * The parser reckons with the clocks of its machine. It is given a noon, in UTC, on a day on which no zone changes its clocks,
 * and only the days that it tells are used: nothing of the machine comes through.
 */
const noonOf = (day: Temporal.PlainDate) => ({ instant: new Date(`${day}T12:00:00Z`), timezone: 0 });
/** From here times such as “in 2 h” are counted: in the weeks after it no zone changes its clocks. */
const STILL = Temporal.PlainDate.from('2001-01-01');

/** What a text means that names one day and one time, with the day first. @param text as it was typed */
export function understood(written: string, text: string, now: Date, zone: string): SaidTime {
  const typed = rewritten(written);
  const nothing = (finding: string) => unsaid(zone, finding);
  const here = Temporal.Instant.fromEpochMilliseconds(now.getTime()).toZonedDateTimeISO(zone);
  const [read, ...more] = en.GB.parse(typed, noonOf(here.toPlainDate()));
  if (!read) return nothing(`“${text.trim()}” is no day and time. Write it like “fri 9:00” or “28 nov 18:30”.`);
  const rest = typed
    .replace(read.text, ' ')
    .replace(/[\s,]+|\bat\b|\bon\b/gi, ' ')
    .trim();
  if (more.length > 0 || read.end || rest !== '') {
    const lost = rest || more.map((each) => each.text).join(', ') || read.text;
    return nothing(`“${lost}” was not understood. Write one day and one time, like “fri 9:00”.`);
  }
  const { start } = read;
  // What opens at once is opened by hand, where it can be stopped for a moment.
  if (start.tags().has('casualReference/now'))
    return nothing('Say a time that is to come, such as “in 10 min”; to open it at once, open it by hand.');
  if (!start.isCertain('hour')) return nothing('Say the time of day, too, such as “fri 9:00”.');
  if (start.tags().has('result/relativeDateAndTime')) {
    // How long a month is depends on which; with hours behind it, nobody says so.
    if (/month|year|quarter/i.test(typed)) return nothing(`“${text.trim()}” was not understood. Say a day and a time.`);
    const [fromStill] = en.GB.parse(typed, noonOf(STILL));
    const passed = (fromStill?.start.date().getTime() ?? 0) - noonOf(STILL).instant.getTime();
    return atInstant(new Date(now.getTime() + passed), now, zone);
  }
  const offset = start.isCertain('timezoneOffset') ? start.get('timezoneOffset') : null;
  const wall = comingWall(read, here);
  const otherDay = offset === null && start.isCertain('day') && weekdayMissed(read, wall);
  if (otherDay) return nothing(otherDay);
  if (offset === null) return resolved({ wall, zone }, now);
  // Said with an offset of its own, so that it is the day there that counts.
  const there = here.withTimeZone(offsetZone(offset));
  const [readThere] = en.GB.parse(typed, noonOf(there.toPlainDate()));
  const wallThere = comingWall(readThere ?? read, there);
  const otherDayThere = start.isCertain('day') && weekdayMissed(read, wallThere);
  if (otherDayThere) return nothing(otherDayThere);
  const plain = Temporal.PlainDateTime.from(wallThere);
  return atInstant(new Date(plain.toZonedDateTime(there.timeZoneId).epochMilliseconds), now, zone);
}

/** Minutes east of UTC as a zone without a place: 90 is +01:30. */
function offsetZone(minutes: number): string {
  const two = (number: number) => String(Math.floor(number)).padStart(2, '0');
  const away = Math.abs(minutes);
  return `${minutes < 0 ? '-' : '+'}${two(away / 60)}:${two(away % 60)}`;
}

/** A time as it is on the wall; where it is over, the next one that the same words can mean. */
function comingWall({ start }: ParsedResult, here: Temporal.ZonedDateTime): string {
  const part = (name: 'year' | 'month' | 'day' | 'hour' | 'minute' | 'second') => start.get(name) ?? 0;
  const [year, month, day] = [part('year'), part('month'), part('day')];
  const [hour, minute, second] = [part('hour'), part('minute'), start.isCertain('second') ? part('second') : 0];
  const wall = new Temporal.PlainDateTime(year, month, day, hour, minute, second);
  const isOver = Temporal.PlainDateTime.compare(wall, here.toPlainDateTime()) < 0;
  const dated = start.isCertain('day');
  if (!isOver || start.isCertain('year') || start.tags().has('casualReference/today')) return wall.toString();
  if (start.isCertain('weekday') && !dated) return wall.add({ days: 7 }).toString();
  if (!dated) return wall.add({ days: 1 }).toString();
  return start.isCertain('month') ? wall.add({ years: 1 }).toString() : wall.toString();
}

/** What is wrong with a weekday that stands beside a date; undefined where it is that day's, or none was said. */
function weekdayMissed({ start }: ParsedResult, wall: string): string | undefined {
  const said = start.isCertain('weekday') ? start.get('weekday') : null;
  const { dayOfWeek } = Temporal.PlainDateTime.from(wall);
  if (said === null || said % 7 === dayOfWeek % 7) return undefined;
  return `${dateOf(wall)} is a ${weekdayOf(wall)}, not a ${WEEKDAYS[said % 7]}. Say the day again.`;
}

const WEEKDAYS = ['Sunday', 'Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday'];
const weekdayOf = (wall: string) => WEEKDAYS[Temporal.PlainDateTime.from(wall).dayOfWeek % 7];
const dateOf = (wall: string) => dayOf(wall).replace(/^\w+,? /, '');
