import { randomBytes, timingSafeEqual } from 'node:crypto';
import ical, { ICalEventStatus } from 'ical-generator';
import { database } from '@/store/database';
import { calendarToken, deleteCalendarToken, keepCalendarToken } from '@/store/notices/calendar-address';
import { settings } from '@/store/settings';
import { DeskError } from '../desk-error';
import { openingsBetween } from '../views/look-at-calendar';
import type { CalendarEntry } from '../views/views';

const TOKEN_BYTES = 24;
const DAYS_BEFORE = 90;
const DAYS_AFTER = 400;
const DAY = 86_400_000;
/** More than anybody opens in that time: a program that reads the address cannot ask for the rest. */
const MOST_VIDEOS = 20_000;

const addressOf = (token: string) => `http://127.0.0.1:${settings().webPort}/api/calendar/feed/${token}.ics`;

/** The address to subscribe to, where there is one. */
export async function calendarAddress(): Promise<{ address: string | undefined }> {
  const token = await calendarToken(database());
  return { address: token && addressOf(token) };
}

/** Makes the address, or another one: the one before leads nowhere from then on. */
export async function renewCalendarAddress(): Promise<{ address: string | undefined }> {
  await keepCalendarToken(database(), randomBytes(TOKEN_BYTES).toString('base64url'));
  return calendarAddress();
}

/** Takes the address away. */
export async function endCalendarAddress(): Promise<void> {
  await deleteCalendarToken(database());
}

/**
 * What opens and what opened lately, as iCalendar (RFC 5545), for whoever has the secret address.
 * @param file the last part of the address
 * @throws DeskError where it is not, or no longer, the secret
 */
export async function calendarFeed(file: string): Promise<string> {
  const token = await calendarToken(database());
  const [asked, known] = [file, `${token}.ics`].map((text) => Buffer.from(text));
  const isKnown = token && asked && known && asked.length === known.length && timingSafeEqual(asked, known);
  if (!isKnown) throw new DeskError('not found', 'There is no calendar at this address. It may have been renewed.');
  const now = Date.now();
  const [from, to] = [new Date(now - DAYS_BEFORE * DAY), new Date(now + DAYS_AFTER * DAY)];
  const { entries } = await openingsBetween(from, to, MOST_VIDEOS);
  const calendar = ical({
    name: 'Kettle Drop',
    prodId: { company: 'Kettle Drop', product: 'Calendar', language: 'EN' },
  });
  for (const entry of entries) calendar.createEvent(eventOf(entry));
  return calendar.toString();
}

const SINCE = { closed: ', and was closed since', removed: ', and was removed since' } as const;

/**
 * One event for each video on each channel, so that it stays the same event where it is moved; of one that was closed and is to
 * open again, what was before is another.
 */
function eventOf({ videoId, title, at, state, channel, opensAt, since }: CalendarEntry) {
  const start = new Date(at);
  return {
    id: `${videoId}.${channel.id}${since ? '.before' : ''}@kettle-drop`,
    start,
    end: start,
    summary: `${title || 'Without a title'} · ${channel.name}`,
    description: `${opensAt ? 'Opens' : 'Opened'} on ${channel.name}, ${channel.siteName}${since ? SINCE[since] : ''}`,
    url: `http://127.0.0.1:${settings().webPort}/videos/${videoId}`,
    status: !opensAt || state === 'held' ? ICalEventStatus.CONFIRMED : ICalEventStatus.TENTATIVE,
  };
}
