import { describe, expect, it } from 'vitest';
import type { CalendarEntry } from '@/desk/views/views';
import { dayKey, daysOf, openingsByDay, placesByDay, stepped, timesThere, timeThere, wallIn } from './days';

const day = new Date(2026, 10, 27, 15, 30);
const entry = (videoId: string, at: Date, name: string) =>
  ({ videoId, title: videoId, at: at.toISOString(), channel: { name } }) as CalendarEntry;

describe('the days of the Calendar', () => {
  it('are whole weeks from Monday on, around the month or the day', () => {
    const month = daysOf('month', day).map(dayKey);
    expect([month[0], month.at(-1), month.length]).toEqual(['2026-10-26', '2026-12-06', 42]);
    const week = daysOf('week', day).map(dayKey);
    expect([week[0], week.at(-1), week.length]).toEqual(['2026-11-23', '2026-11-29', 7]);
    expect(daysOf('list', day).map(dayKey)[0]).toBe('2026-11-27');
    // A month that is four weeks sharp has no more than them.
    expect(daysOf('month', new Date(2027, 1, 10))).toHaveLength(28);
  });

  it('go on by a month, a week or as many as the list has, and back to where they were', () => {
    expect(dayKey(stepped('month', new Date(2027, 0, 31), 1))).toBe('2027-02-01');
    expect(dayKey(stepped('week', day, -1))).toBe('2026-11-20');
    for (const look of ['week', 'list'] as const) expect(stepped(look, stepped(look, day, 1), -1)).toEqual(day);
  });

  it('have the free places of each day', () => {
    const at = (...parts: [number, number, number, number]) => new Date(...parts).toISOString();
    const places = [at(2026, 10, 27, 9), at(2026, 10, 27, 18), at(2026, 10, 28, 9)].map((each) => {
      return { seriesId: 's', series: 'Tide Notes', at: each };
    });
    expect([...placesByDay(places)].map(([day, ofDay]) => [day, ofDay.length])).toEqual([
      ['2026-11-27', 2],
      ['2026-11-28', 1],
    ]);
  });

  it('have a video once where it opens on several channels at the same minute', () => {
    const at = new Date(2026, 10, 27, 18, 0, 3);
    const later = new Date(2026, 10, 28, 9, 0);
    const found = openingsByDay([
      entry('a', at, 'One'),
      entry('a', new Date(+at + 900), 'Two'),
      entry('a', later, 'Three'),
    ]);
    expect([...found.keys()]).toEqual(['2026-11-27', '2026-11-28']);
    expect(found.get('2026-11-27')?.map(({ entries }) => entries.map(({ channel }) => channel.name))).toEqual([
      ['One', 'Two'],
    ]);
  });
});

describe('the time where a site is', () => {
  // IANA: America/St_Johns is 3 h 30 min behind UTC in winter; Pacific/Apia 13 h ahead.
  const at = new Date('2026-11-28T02:00:00Z');

  it('is said with its day where that is another than here', () => {
    const here = new Intl.DateTimeFormat('en-GB', { day: 'numeric' }).format(at);
    const there = new Intl.DateTimeFormat('en-GB', { day: 'numeric', timeZone: 'America/St_Johns' }).format(at);
    expect(timeThere(at, 'America/St_Johns')).toBe(here === there ? '22:30' : 'Fri 22:30');
    expect(timeThere(at, Intl.DateTimeFormat().resolvedOptions().timeZone)).toMatch(/^\d\d:\d\d$/);
  });

  it('is said of each site once, and of none that has the time of here', () => {
    const entry = (siteName: string, printsDateIn: string | null) =>
      ({ channel: { siteName }, printsDateIn }) as CalendarEntry;
    const { timeZone } = Intl.DateTimeFormat().resolvedOptions();
    const elsewhere = timeZone === 'Pacific/Apia' ? 'America/St_Johns' : 'Pacific/Apia';
    const entries = [
      entry('Lanternfold', elsewhere),
      entry('Lanternfold', elsewhere),
      entry('Here', timeZone),
      entry('None', null),
    ];
    expect(timesThere({ key: '', at, entries }).map(({ siteName }) => siteName)).toEqual(['Lanternfold']);
  });

  it('is a wall time of the zone, also after midnight', () => {
    expect(wallIn('America/St_Johns', at)).toBe('2026-11-27T22:30:00');
    expect(wallIn('UTC', new Date('2026-11-28T00:05:09Z'))).toBe('2026-11-28T00:05:09');
  });
});
