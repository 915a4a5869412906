import { addDays, addMonths, addWeeks, endOfMonth, format, startOfDay, startOfMonth, startOfWeek } from 'date-fns';
import type { CalendarEntry, FreePlace } from '@/desk/views/views';

/** The ways to look at the Calendar. */
export const LOOKS = ['month', 'week', 'list'] as const;
export type Look = (typeof LOOKS)[number];

const WEEK = { weekStartsOn: 1 } as const;
const LIST_DAYS = 60;
const DAYS_OF_WEEK = 7;

/** The days that a look shows around a day, by the clocks of this machine. */
export function daysOf(look: Look, day: Date): Date[] {
  if (look === 'list') return Array.from({ length: LIST_DAYS }, (_, n) => addDays(startOfDay(day), n));
  const first = startOfWeek(look === 'month' ? startOfMonth(day) : day, WEEK);
  const last = look === 'month' ? endOfMonth(day) : addDays(first, DAYS_OF_WEEK - 1);
  const days: Date[] = [];
  for (let each = first; each <= last || days.length % DAYS_OF_WEEK !== 0; each = addDays(each, 1)) days.push(each);
  return days;
}

/** The day that a look goes on with, before or after. */
export function stepped(look: Look, day: Date, steps: 1 | -1): Date {
  if (look === 'month') return addMonths(startOfMonth(day), steps);
  return look === 'week' ? addWeeks(day, steps) : addDays(day, steps * LIST_DAYS);
}

/** A video at one moment, with all channels on which it opens then. */
export interface Opening {
  key: string;
  at: Date;
  entries: CalendarEntry[];
}

/** Entries by their day here; those of one video at the same minute stand together. */
export function openingsByDay(entries: readonly CalendarEntry[]): Map<string, Opening[]> {
  const days = new Map<string, Map<string, Opening>>();
  for (const entry of entries) {
    const at = new Date(entry.at);
    const [day, key] = [dayKey(at), `${entry.videoId} ${entry.at.slice(0, 16)}`];
    const openings = days.get(day) ?? new Map<string, Opening>();
    const opening = openings.get(key) ?? { key, at, entries: [] };
    opening.entries.push(entry);
    openings.set(key, opening);
    days.set(day, openings);
  }
  return new Map([...days].map(([day, openings]) => [day, [...openings.values()]]));
}

/** Free places by their day here. */
export function placesByDay(places: readonly FreePlace[]): Map<string, FreePlace[]> {
  const days = new Map<string, FreePlace[]>();
  for (const place of places) {
    const day = dayKey(new Date(place.at));
    days.set(day, [...(days.get(day) ?? []), place]);
  }
  return days;
}

export const dayKey = (day: Date): string => format(day, 'yyyy-MM-dd');

/** The time of an instant in a zone, with the day where it is another than here. */
export function timeThere(at: Date, zone: string): string {
  const parts = (options: Intl.DateTimeFormatOptions, timeZone?: string) =>
    new Intl.DateTimeFormat('en-GB', { ...options, timeZone }).format(at);
  const time = parts({ hour: '2-digit', minute: '2-digit' }, zone);
  const day = { weekday: 'short', day: 'numeric' } as const;
  return parts(day, zone) === parts(day) ? time : `${parts({ weekday: 'short' }, zone)} ${time}`;
}

/** The sites of an opening that print the date of a zone with another time than here, each with its time there. */
export function timesThere({ at, entries }: Opening): { siteName: string; time: string; otherDay: boolean }[] {
  const here = format(at, 'HH:mm');
  const bySite = new Map(entries.map(({ channel, printsDateIn }) => [channel.siteName, printsDateIn]));
  return [...bySite].flatMap(([siteName, zone]) => {
    const time = zone ? timeThere(at, zone) : here;
    return time === here ? [] : [{ siteName, time, otherDay: time.includes(' ') }];
  });
}

/** An instant as clocks in a zone show it: 2026-11-28T18:30:00. */
export function wallIn(zone: string, at: Date): string {
  // Of the languages that the engine knows, Swedish writes a date as ISO 8601 does.
  const text = new Intl.DateTimeFormat('sv-SE', {
    ...{ year: 'numeric', month: '2-digit', day: '2-digit' },
    ...{ hour: '2-digit', minute: '2-digit', second: '2-digit' },
    timeZone: zone,
  }).format(at);
  return text.replace(' ', 'T');
}
