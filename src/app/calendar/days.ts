import { addDays, addMonths, addWeeks, endOfMonth, format, startOfDay, startOfMonth, startOfWeek } from 'date-fns';
import type { CalendarEntry, FreePlace } from '@/desk/look/views';

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
