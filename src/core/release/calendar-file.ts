import ICAL from 'ical.js';
import type { Moment } from './moment';
import { instantsOf, zoneNamed } from './moment';

/** One time that a calendar file names. */
export interface CalendarTime {
  /** The line of the file on which it begins, from 1. */
  line: number;
  title: string;
  /** What else may say which video is meant: the event's id and its address. */
  uid: string;
  url: string;
  opensAt: Moment;
  /** What of the event was not taken, in words. */
  note: string | undefined;
}

/** An event that could not be read, and why. */
export interface NotRead {
  line: number;
  title: string;
  why: string;
}

interface Block {
  line: number;
  text: string;
}

/** The events of a file with the lines on which they begin; each stands alone, so that one that is broken spoils no other. */
function eventsIn(text: string): { blocks: Block[]; open: number[] } {
  const lines = text.split(/\r\n|\n|\r/);
  const [blocks, open]: [Block[], number[]] = [[], []];
  let begun: number | undefined;
  for (const [index, line] of lines.entries()) {
    const plain = line.trim().toUpperCase();
    if (plain === 'BEGIN:VEVENT') {
      if (begun !== undefined) open.push(begun + 1);
      begun = index;
    } else if (plain === 'END:VEVENT' && begun !== undefined) {
      blocks.push({ line: begun + 1, text: lines.slice(begun, index + 1).join('\r\n') });
      begun = undefined;
    }
  }
  if (begun !== undefined) open.push(begun + 1);
  return { blocks, open };
}

/** The moment of an event's beginning, by the rules of RFC 5545, 3.3.5: in UTC, in a zone, or by whoever's clock. */
function beginning(
  event: ICAL.Component,
  floating: string,
): { opensAt: Moment; note: string | undefined } | { why: string } {
  const property = event.getFirstProperty('dtstart');
  const value = property?.getFirstValue();
  if (!(value instanceof ICAL.Time)) return { why: 'it does not say when it begins' };
  if (value.isDate) return { why: 'it has a day and no time' };
  const given = property?.getParameter('tzid');
  const tzid = typeof given === 'string' ? given : undefined;
  // As it is written: the parser takes 30 February for 2 March.
  const wall = String(property?.toJSON()[3] ?? '').slice(0, 19);
  if (Number.isNaN(Date.parse(`${wall}Z`)) || new Date(`${wall}Z`).toISOString().slice(0, 19) !== wall) {
    return { why: `there is no ${wall.replace('T', ' ')}` };
  }
  const zone =
    tzid !== undefined ? zoneNamed(tzid) : value.zone === ICAL.Timezone.utcTimezone ? 'UTC' : zoneNamed(floating);
  if (!zone) return { why: `it is in a time zone called “${tzid}”, which is not known` };
  const instants = instantsOf({ wall, zone });
  if (instants.length === 0) return { why: `the clocks in ${zone} jump over ${wall.replace('T', ' ')}` };
  if (instants.length === 1) return { opensAt: { wall, zone }, note: undefined };
  // RFC 5545, 3.3.5: the first of the two.
  return { opensAt: { wall, zone, which: 'first' }, note: 'it comes twice, as the clocks go back: the first is taken' };
}

const textOf = (event: ICAL.Component, name: string): string => String(event.getFirstPropertyValue(name) ?? '').trim();

/** What a line of an event says that cannot be read as a whole. */
const lineIn = (text: string, name: 'SUMMARY' | 'DTSTART') =>
  new RegExp(`^${name}[^:]*:(.*)$`, 'im').exec(text)?.[1]?.trim() ?? '';

const whyNotRead = (text: string, error: Error): string =>
  /date-time|date value/.test(error.message)
    ? `its time “${lineIn(text, 'DTSTART')}” is none`
    : `it cannot be read: ${error.message}`;

/**
 * The times that an iCalendar file names (RFC 5545), and a line for each event that could not be read.
 * @param floating the zone of times that name none
 */
export function calendarTimes(text: string, floating: string): { times: CalendarTime[]; notRead: NotRead[] } {
  const { blocks, open } = eventsIn(text);
  const times: CalendarTime[] = [];
  const notRead: NotRead[] = open.map((line) => ({ line, title: '', why: 'the event has no end' }));
  for (const { line, text: block } of blocks) {
    try {
      const event = new ICAL.Component(ICAL.parse(block));
      const title = textOf(event, 'summary');
      const begins = beginning(event, floating);
      if ('why' in begins) {
        notRead.push({ line, title, why: begins.why });
        continue;
      }
      const repeats = event.getFirstProperty('rrule') !== null ? 'it repeats: its first time is taken' : undefined;
      const notes = [repeats, begins.note].filter((note) => note !== undefined);
      times.push({
        ...{ line, title, uid: textOf(event, 'uid'), url: textOf(event, 'url') },
        opensAt: begins.opensAt,
        note: notes.length > 0 ? notes.join('; ') : undefined,
      });
    } catch (error) {
      notRead.push({ line, title: lineIn(block, 'SUMMARY'), why: whyNotRead(block, error as Error) });
    }
  }
  return { times, notRead: notRead.sort((a, b) => a.line - b.line) };
}
