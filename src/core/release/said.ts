import { en, type ParsedResult } from 'chrono-node';
import { Temporal } from 'temporal-polyfill';
import { clock, dayAndTime } from './in-words';
import { instantsOf, jumpOver, type Moment, momentAt, zoneNamed } from './moment';

/** What a typed time came to. */
export interface SaidTime {
  /** The time on the wall, where one was understood. */
  wall: string | undefined;
  zone: string;
  /** In UTC; undefined where there is none, or two to choose from. */
  instant: string | undefined;
  /** The two instants of a time that comes twice. */
  choices: string[];
  /** What is wrong with it, each in a sentence. */
  findings: string[];
}

/** Short ways to write a date or time that the parser does not know: 28.11. and 18h30. */
const rewritten = (text: string) =>
  text
    .trim()
    .replace(/\b(\d{1,2})\.(\d{1,2})\.(?=\s|$)/g, '$1/$2')
    .replace(/\b(\d{1,2})h(\d{2})\b/gi, '$1:$2');

/**
 * Understands a time as people type it: "fri 9:00", "in 2 h", "28 nov 18:30", "2026-11-28 18:30". A day without a year, a
 * weekday and a time without a day mean the next that comes. Nothing is guessed: a time that does not exist, comes twice, is
 * over, or of which a part was not understood, says so.
 * @param now the instant that "in 2 h" counts from
 * @param zone the IANA zone that it is said in
 */
export function timeSaid(text: string, now: Date, zone: string): SaidTime {
  const known = zoneNamed(zone);
  const nothing = (...findings: string[]): SaidTime => {
    return { wall: undefined, zone: known ?? zone, instant: undefined, choices: [], findings };
  };
  if (!known) return nothing(`There is no time zone “${zone}”. Name it by place, such as Europe/Berlin.`);
  const typed = rewritten(text);
  if (typed === '') return nothing('Say when: a day and a time, such as “fri 9:00”.');
  const here = Temporal.Instant.fromEpochMilliseconds(now.getTime()).toZonedDateTimeISO(known);
  const reference = { instant: now, timezone: here.offsetNanoseconds / 60e9 };
  const [read, ...more] = en.GB.parse(typed, reference, { forwardDate: true });
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
  if (!start.isCertain('hour')) return nothing('Say the time of day, too, such as “fri 9:00”.');
  if (start.tags().has('result/relativeDateAndTime') || start.isCertain('timezoneOffset')) {
    return atInstant(start.date(), now, known);
  }
  return resolved({ wall: comingWall(read, here), zone: known }, now);
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

function atInstant(instant: Date, now: Date, zone: string): SaidTime {
  const { wall } = momentAt(instant, zone);
  return { wall, zone, instant: plainInstant(instant), choices: [], findings: over(instant, now) };
}

/** What a wall time in a zone comes to. @param now what is before it is over */
export function resolved({ wall, zone, which }: Moment, now: Date): SaidTime {
  const [first, second] = instantsOf({ wall, zone });
  if (!first) {
    const { from, to } = jumpOver({ wall, zone });
    const said = from.slice(0, 10) === to.slice(0, 10) ? clock : dayAndTime;
    const what = `${dayAndTime(wall)} does not exist in ${zone}: the clocks go from ${said(from)} to ${said(to)}.`;
    return { wall, zone, instant: undefined, choices: [], findings: [`${what} Choose a time before or after.`] };
  }
  if (second && !which) {
    const what = `${dayAndTime(wall)} comes twice in ${zone}, as the clocks go back. Say which one you mean.`;
    return { wall, zone, instant: undefined, choices: [first, second], findings: [what] };
  }
  const instant = which === 'second' && second ? second : first;
  return { wall, zone, instant, choices: [], findings: over(new Date(instant), now) };
}

const over = (instant: Date, now: Date) => (instant < now ? ['That time is over. Choose one that is to come.'] : []);

/** An instant in UTC, to the second where it has no fraction: 2026-11-28T17:30:00Z. */
const plainInstant = (instant: Date) => Temporal.Instant.fromEpochMilliseconds(instant.getTime()).toString();
