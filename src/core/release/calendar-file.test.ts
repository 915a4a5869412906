import ical from 'ical-generator';
import { describe, expect, it } from 'vitest';
import { calendarTimes } from './calendar-file';

const file = (...events: string[][]) =>
  [
    'BEGIN:VCALENDAR',
    'VERSION:2.0',
    ...events.flatMap((lines) => ['BEGIN:VEVENT', ...lines, 'END:VEVENT']),
    'END:VCALENDAR',
  ].join('\r\n');
const berlin = 'Europe/Berlin';

describe('a calendar file', () => {
  // RFC 5545, 3.3.5: form 1 is by whoever's clock, form 2 in UTC, form 3 in a zone; the dates are those of its examples.
  it('has times by the clock of the reader, in UTC, and in a zone', () => {
    const text = file(
      ['SUMMARY:One', 'DTSTART:19980118T230000'],
      ['SUMMARY:Two', 'DTSTART:19980119T070000Z'],
      ['SUMMARY:Three', 'DTSTART;TZID=America/New_York:19980119T020000'],
    );
    expect(calendarTimes(text, berlin).times.map(({ title, opensAt }) => [title, opensAt])).toEqual([
      ['One', { wall: '1998-01-18T23:00:00', zone: berlin }],
      ['Two', { wall: '1998-01-19T07:00:00', zone: 'UTC' }],
      ['Three', { wall: '1998-01-19T02:00:00', zone: 'America/New_York' }],
    ]);
  });

  // RFC 5545, 3.1: its own example of a folded line.
  it('has lines that are folded', () => {
    const text = file([
      'DTSTART:20261204T180000Z',
      'SUMMARY:This is a lo',
      ' ng description',
      '  that exists on a long line.',
    ]);
    expect(calendarTimes(text, 'UTC').times[0]?.title).toBe('This is a long description that exists on a long line.');
  });

  it('is read as another program has written it (ical-generator)', () => {
    const calendar = ical({ name: 'Plan' });
    calendar.createEvent({
      start: new Date('2026-12-04T17:00:00Z'),
      summary: 'A, keel; laid',
      url: 'http://x/videos/1',
      id: 'u1',
    });
    expect(calendarTimes(calendar.toString(), 'UTC')).toMatchObject({
      times: [
        {
          title: 'A, keel; laid',
          uid: 'u1',
          url: 'http://x/videos/1',
          opensAt: { wall: '2026-12-04T17:00:00', zone: 'UTC' },
        },
      ],
      notRead: [],
    });
  });

  // RFC 5545, 3.3.5, by the IANA data: Berlin's clocks go from 2:00 to 3:00 on 28 March 2027, and back on 31 October.
  it('says where clocks jump over a time, and which of two is taken where they go back', () => {
    const zoned = (time: string) => [`SUMMARY:${time}`, `DTSTART;TZID=${berlin}:${time}`];
    const { times, notRead } = calendarTimes(file(zoned('20270328T023000'), zoned('20271031T023000')), 'UTC');
    expect(times.map(({ opensAt, note }) => [opensAt, note])).toEqual([
      [
        { wall: '2027-10-31T02:30:00', zone: berlin, which: 'first' },
        'it comes twice, as the clocks go back: the first is taken',
      ],
    ]);
    expect(notRead.map(({ why }) => why)).toEqual(['the clocks in Europe/Berlin jump over 2027-03-28 02:30:00']);
  });

  it('gives what could be read, and a line for each that could not', () => {
    const text = file(
      ['SUMMARY:Good', 'DTSTART:20261204T180000Z'],
      ['SUMMARY:All day', 'DTSTART;VALUE=DATE:20261205'],
      ['SUMMARY:Never', 'DTSTART:20270230T180000Z'],
      ['SUMMARY:No start'],
      ['SUMMARY:Elsewhere', 'DTSTART;TZID=Middle-earth:20261204T180000'],
      ['SUMMARY:Broken', 'this is no line'],
      ['SUMMARY:Cut short', 'DTSTART;TZID=Europe/Berlin:2026120518'],
      ['SUMMARY:Again', 'DTSTART:20261206T180000Z', 'RRULE:FREQ=WEEKLY'],
    ).replace('END:VCALENDAR', 'BEGIN:VEVENT\r\nSUMMARY:Cut off');
    const { times, notRead } = calendarTimes(text, 'UTC');
    expect(times.map(({ title, note }) => [title, note])).toEqual([
      ['Good', undefined],
      ['Again', 'it repeats: its first time is taken'],
    ]);
    expect(notRead.map(({ line, title, why }) => [line, title, why.split(': ')[0]])).toEqual([
      [7, 'All day', 'it has a day and no time'],
      [11, 'Never', 'there is no 2027-02-30 18:00:00'],
      [15, 'No start', 'it does not say when it begins'],
      [18, 'Elsewhere', 'it is in a time zone called “Middle-earth”, which is not known'],
      [22, 'Broken', 'it cannot be read'],
      [26, 'Cut short', 'its time “2026120518” is none'],
      [35, '', 'the event has no end'],
    ]);
  });

  it('is none where it is something else', () => {
    expect(calendarTimes('hello', 'UTC')).toEqual({ times: [], notRead: [] });
    expect(calendarTimes('', 'UTC')).toEqual({ times: [], notRead: [] });
  });
});
