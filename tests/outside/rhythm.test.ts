import { describe, expect, it } from 'vitest';
import { freePlaces, instantOf, type Rhythm, rhythmFinding, rhythmInWords } from '@/core/release';

const NEW_YORK = 'America/New_York';
const rhythm = (rule: string, time = '09:00', zone = NEW_YORK, from = '1997-09-02'): Rhythm => {
  return { rule, from, time, zone };
};
/** The night before 2 September 1997, on which the examples of RFC 5545 §3.8.5.3 begin. */
const before = new Date('1997-09-02T04:00:00Z');
const days = (rule: string, most: number) =>
  freePlaces(rhythm(rule), before, new Set(), most).map(({ wall }) => wall.slice(0, 10));

describe('RFC 5545 §3.8.5.3, the examples of RRULE', () => {
  it.each([
    [
      'FREQ=DAILY;COUNT=10',
      [
        '1997-09-02',
        '1997-09-03',
        '1997-09-04',
        '1997-09-05',
        '1997-09-06',
        '1997-09-07',
        '1997-09-08',
        '1997-09-09',
        '1997-09-10',
        '1997-09-11',
      ],
    ],
    [
      'FREQ=WEEKLY;COUNT=10',
      [
        '1997-09-02',
        '1997-09-09',
        '1997-09-16',
        '1997-09-23',
        '1997-09-30',
        '1997-10-07',
        '1997-10-14',
        '1997-10-21',
        '1997-10-28',
        '1997-11-04',
      ],
    ],
    [
      'FREQ=WEEKLY;INTERVAL=2;WKST=SU',
      [
        '1997-09-02',
        '1997-09-16',
        '1997-09-30',
        '1997-10-14',
        '1997-10-28',
        '1997-11-11',
        '1997-11-25',
        '1997-12-09',
        '1997-12-23',
        '1998-01-06',
      ],
    ],
    [
      'FREQ=WEEKLY;COUNT=10;WKST=SU;BYDAY=TU,TH',
      [
        '1997-09-02',
        '1997-09-04',
        '1997-09-09',
        '1997-09-11',
        '1997-09-16',
        '1997-09-18',
        '1997-09-23',
        '1997-09-25',
        '1997-09-30',
        '1997-10-02',
      ],
    ],
    [
      'FREQ=MONTHLY;COUNT=10;BYMONTHDAY=2,15',
      [
        '1997-09-02',
        '1997-09-15',
        '1997-10-02',
        '1997-10-15',
        '1997-11-02',
        '1997-11-15',
        '1997-12-02',
        '1997-12-15',
        '1998-01-02',
        '1998-01-15',
      ],
    ],
    ['FREQ=MONTHLY;BYDAY=FR;BYMONTHDAY=13', ['1998-02-13', '1998-03-13', '1998-11-13', '1999-08-13', '2000-10-13']],
  ])('%s', (rule, expected) => {
    expect(days(rule, expected.length)).toEqual(expected);
  });

  it('keeps the time of day where summer time ends: 9:00 is 13:00 UTC before, 14:00 after', () => {
    const places = freePlaces(rhythm('FREQ=WEEKLY;BYDAY=TU'), before, new Set(), 10).map(instantOf);
    expect(places[7]?.toISOString()).toBe('1997-10-21T13:00:00.000Z');
    expect(places[8]?.toISOString()).toBe('1997-10-28T14:00:00.000Z');
  });
});

describe('the free places of a rhythm', () => {
  const fridays = rhythm('FREQ=WEEKLY;BYDAY=FR', '18:00', 'Europe/Berlin');
  const now = new Date('2026-11-27T17:30:00Z');

  it('are those to come at which nothing opens yet', () => {
    expect(freePlaces(fridays, now, new Set(), 1)).toEqual([{ wall: '2026-12-04T18:00:00', zone: 'Europe/Berlin' }]);
    const taken = new Set([Date.parse('2026-12-04T17:00:00Z')]);
    expect(freePlaces(fridays, now, taken, 1)[0]?.wall).toBe('2026-12-11T18:00:00');
    // Half an hour before, that of today is still to come.
    expect(freePlaces(fridays, new Date('2026-11-27T16:30:00Z'), taken, 1)[0]?.wall).toBe('2026-11-27T18:00:00');
  });

  it('are counted from the date that was said: every second week stays every second week', () => {
    const second = { ...fridays, rule: 'FREQ=WEEKLY;INTERVAL=2;BYDAY=FR', from: '2026-11-06' };
    const first = (at: string) => freePlaces(second, new Date(at), new Set(), 1)[0]?.wall.slice(0, 10);
    expect(['2026-11-27T12:00:00Z', '2026-11-30T12:00:00Z'].map(first)).toEqual(['2026-12-04', '2026-12-04']);
  });

  it('have none on a day whose clocks jump over the time, and none where the rule has come to its end', () => {
    const nights = rhythm('FREQ=DAILY', '02:30', 'Europe/Berlin');
    const walls = freePlaces(nights, new Date('2027-03-27T00:00:00Z'), new Set(), 2).map(({ wall }) => wall);
    expect(walls).toEqual(['2027-03-27T02:30:00', '2027-03-29T02:30:00']);
    expect(freePlaces(rhythm('FREQ=WEEKLY;UNTIL=20200101T000000Z'), now, new Set(), 1)).toEqual([]);
  });

  it('are said in words, and what is no rhythm is said, too', () => {
    expect(rhythmInWords(fridays)).toBe('every week on Friday at 18:00');
    expect(rhythmFinding(fridays)).toBeUndefined();
    expect(rhythmFinding({ ...fridays, rule: 'EVERY=FRIDAY' })).toContain('not understood');
    expect(rhythmFinding({ ...fridays, rule: 'FREQ=NEVER' })).toBeDefined();
    expect(rhythmFinding({ ...fridays, from: 'soon' })).toContain('counts from');
    expect(rhythmFinding({ ...fridays, rule: 'FREQ=HOURLY' })).toContain('by days');
    expect(rhythmFinding({ ...fridays, rule: 'FREQ=DAILY;BYHOUR=9' })).toContain('beside the rule');
    expect(rhythmFinding({ ...fridays, time: '25:00' })).toContain('looks like 18:00');
    expect(rhythmFinding({ ...fridays, zone: '+01:00' })).toContain('by place');
  });
});
