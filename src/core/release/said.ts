import { en, type ParsedResult } from 'chrono-node';
import { Temporal } from 'temporal-polyfill';
import { clock, dayAndTime, dayOf } from './in-words';
import { instantsOf, jumpOver, type Moment, momentAt, zoneNamed } from './moment';

/** Which of two numbers comes first where a date is written with both: the day, the month, or neither is known. */
export type DateOrder = 'day first' | 'month first' | 'ask';

/** One of two times that the same words can mean. */
export interface SaidChoice {
  moment: Moment;
  /** In UTC. */
  instant: string;
  /** What tells it from the other. */
  says: string;
}

/** What a typed time came to. */
export interface SaidTime {
  /** The time on the wall, where one was understood. */
  wall: string | undefined;
  zone: string;
  /** In UTC; undefined where there is none, or two to choose from. */
  instant: string | undefined;
  /** The two that it may be, where it is one of two. */
  choices: SaidChoice[];
  /** What is wrong with it, each in a sentence. */
  findings: string[];
}

/** Short ways to write a date or time that the parser does not know: 28.11. and 18h30. */
const rewritten = (text: string) =>
  text.replace(/\b(\d{1,2})\.(\d{1,2})\.(?=\s|$)/g, '$1/$2').replace(/\b(\d{1,2})h(\d{2})\b/gi, '$1:$2');

/**
 * Day and month as two numbers in either order: 12/04, 12/4/2027, 12-4-2027. With points the day comes first everywhere, and
 * 9-10 alone may be hours.
 */
const EITHER_ORDER = /(?<![\d/:.-])(\d{1,2})(?:(\/)(\d{1,2})(?![\d:.-])|(-)(\d{1,2})(?=-\d))/;
const MONTHS = 12;

/** What a text means whose date may have the day first or the month first: one text, or both where these are two days. */
function inOrders(text: string, order: DateOrder): [string] | [dayFirst: string, monthFirst: string] {
  const [found, first = '', slash, afterSlash, dash = '', afterDash = ''] = EITHER_ORDER.exec(text) ?? [];
  if (!found) return [text];
  const second = afterSlash ?? afterDash;
  const turned = text.replace(found, `${second}${slash ?? dash}${first}`);
  if (Number(second) > MONTHS) return [turned];
  if (Number(first) > MONTHS || Number(first) === Number(second)) return [text];
  if (order !== 'ask') return [order === 'day first' ? text : turned];
  return [text, turned];
}

/**
 * The parser reckons with the clocks of its machine. It is given a noon, in UTC, on a day on which no zone changes its clocks,
 * and only the days that it tells are used: nothing of the machine comes through.
 */
const noonOf = (day: Temporal.PlainDate) => ({ instant: new Date(`${day}T12:00:00Z`), timezone: 0 });
/** From here times such as “in 2 h” are counted: in the weeks after it no zone changes its clocks. */
const STILL = Temporal.PlainDate.from('2001-01-01');

/**
 * Understands a time as people type it: "fri 9:00", "in 2 h", "28 nov 18:30", "2026-11-28 18:30". A day without a year, a
 * weekday and a time without a day mean the next that comes. Nothing is guessed: a time that does not exist, comes twice, is
 * over, may be one of two days, or of which a part was not understood, says so.
 * @param now the instant that "in 2 h" counts from
 * @param zone the IANA zone that it is said in
 * @param order of the numbers of a date such as 12/04, where the manager has said it
 */
export function timeSaid(text: string, now: Date, zone: string, order: DateOrder = 'ask'): SaidTime {
  const known = zoneNamed(zone);
  const nothing = (...findings: string[]): SaidTime => {
    return { wall: undefined, zone: known ?? zone, instant: undefined, choices: [], findings };
  };
  if (!known) return nothing(`There is no time zone “${zone}”. Name it by place, such as Europe/Berlin.`);
  if (text.trim() === '') return nothing('Say when: a day and a time, such as “fri 9:00”.');
  const [one, other] = inOrders(text.trim(), order).map((each) => understood(rewritten(each), text, now, known));
  if (!one) return nothing();
  if (!other || !one.wall || !other.wall) return one;
  const choices = [one, other].flatMap(({ wall, instant }) =>
    wall && instant ? [{ moment: { wall, zone: known }, instant, says: dayOf(wall) }] : [],
  );
  return { ...nothing(`That is ${dayOf(one.wall)} or ${dayOf(other.wall)}. Say which one you mean.`), choices };
}

/** What a text means of which the order of numbers is known. @param text as it was typed */
function understood(typed: string, text: string, now: Date, zone: string): SaidTime {
  const nothing = (finding: string): SaidTime => {
    return { wall: undefined, zone, instant: undefined, choices: [], findings: [finding] };
  };
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
  if (offset === null) return resolved({ wall: comingWall(read, here), zone }, now);
  // Said with an offset of its own, so that it is the day there that counts.
  const there = here.withTimeZone(offsetZone(offset));
  const [readThere] = en.GB.parse(typed, noonOf(there.toPlainDate()));
  const wall = Temporal.PlainDateTime.from(comingWall(readThere ?? read, there));
  return atInstant(new Date(wall.toZonedDateTime(there.timeZoneId).epochMilliseconds), now, zone);
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
    const choices = [
      { moment: { wall, zone, which: 'first' as const }, instant: first, says: 'Before the clocks go back' },
      { moment: { wall, zone, which: 'second' as const }, instant: second, says: 'After the clocks go back' },
    ];
    return { wall, zone, instant: undefined, choices, findings: [what] };
  }
  const instant = which === 'second' && second ? second : first;
  return { wall, zone, instant, choices: [], findings: over(new Date(instant), now) };
}

const over = (instant: Date, now: Date) => (instant < now ? ['That time is over. Choose one that is to come.'] : []);

/** An instant in UTC, to the second where it has no fraction: 2026-11-28T17:30:00Z. */
const plainInstant = (instant: Date) => Temporal.Instant.fromEpochMilliseconds(instant.getTime()).toString();
