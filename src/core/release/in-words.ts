const part = (value: string) => value.padStart(2, '0');

/** The time of day of a wall time: 18:30, with seconds where it has any. */
export function clock(wall: string): string {
  const [, time = ''] = wall.split('T');
  const [hour = '0', minute = '0', second = '0'] = time.split(':');
  return [part(hour), part(minute), ...(Number(second) > 0 ? [part(second)] : [])].join(':');
}

const dayFormat = (year: boolean) =>
  new Intl.DateTimeFormat('en-GB', {
    weekday: 'short',
    day: 'numeric',
    month: 'short',
    ...(year && { year: 'numeric' }),
    timeZone: 'UTC',
  });

/** The day of a wall time or date: Sat, 28 Nov 2026. @param year whether to say the year */
export function dayOf(wall: string, year = true): string {
  return dayFormat(year).format(new Date(`${wall.slice(0, 10)}T00:00:00Z`));
}

/** A wall time: 18:30 on Sat 28 Nov 2026. */
export const dayAndTime = (wall: string): string => `${clock(wall)} on ${dayOf(wall)}`;

/** An instant as clocks of a zone show it: Fri 27 Nov, 09:00. */
export function shownIn(zone: string, instant: Date): string {
  const format = new Intl.DateTimeFormat('en-GB', {
    weekday: 'short',
    day: 'numeric',
    month: 'short',
    hour: '2-digit',
    minute: '2-digit',
    hourCycle: 'h23',
    timeZone: zone,
  });
  return format.format(instant);
}

/** The same with what those clocks are called: Fri 27 Nov, 09:00 CET. */
export function timeIn(zone: string, instant: Date): string {
  const named = new Intl.DateTimeFormat('en-GB', { timeZone: zone, timeZoneName: 'short' }).formatToParts(instant);
  return `${shownIn(zone, instant)} ${named.find(({ type }) => type === 'timeZoneName')?.value ?? zone}`;
}

const UNITS = [
  ['day', 86_400],
  ['hour', 3600],
  ['minute', 60],
  ['second', 1],
] as const;

/** How far an instant is from another, roughly: "in 3 days", "in 90 minutes", "4 minutes ago". */
export function fromNow(instant: Date, now: Date): string {
  const seconds = Math.round((instant.getTime() - now.getTime()) / 1000);
  const [unit, length] = UNITS.find(([, each]) => Math.abs(seconds) >= each * 2) ?? UNITS[3];
  return new Intl.RelativeTimeFormat('en', { numeric: 'always' }).format(Math.round(seconds / length), unit);
}

/** Whether a value is a moment as it was said. */
export const isMoment = (value: unknown): value is { wall: string; zone: string } =>
  typeof (value as { wall?: unknown } | null)?.wall === 'string';

/** A moment as it was said: 18:30 on Sat, 28 Nov 2026 in Europe/Berlin. */
export const momentInWords = ({ wall, zone }: { wall: string; zone: string }): string =>
  `${dayAndTime(wall)} in ${zone}`;
