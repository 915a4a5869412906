import { describe, expect, it } from 'vitest';
import { timeSaid } from './said';

const zone = 'Europe/Berlin';
/** A Friday, 11:00 in Berlin. */
const now = new Date('2026-11-27T10:00:00Z');
const instant = (text: string) => timeSaid(text, now, zone).instant;
const finding = (text: string, where = zone) => timeSaid(text, now, where).findings[0];

describe('a time as people type it', () => {
  it.each([
    ['fri 12:00', '2026-11-27T11:00:00Z'],
    ['fri 9:00', '2026-12-04T08:00:00Z'],
    ['on friday at 9am', '2026-12-04T08:00:00Z'],
    ['28 nov 18:30', '2026-11-28T17:30:00Z'],
    ['28.11. 18:30', '2026-11-28T17:30:00Z'],
    ['28/11 18:30', '2026-11-28T17:30:00Z'],
    ['2026-11-28 18:30', '2026-11-28T17:30:00Z'],
    ['2026-11-28T18:30Z', '2026-11-28T18:30:00Z'],
    ['tomorrow noon', '2026-11-28T11:00:00Z'],
    ['18h30', '2026-11-27T17:30:00Z'],
    // Over for today, so that of tomorrow; over for this year, so that of the next.
    ['9:00', '2026-11-28T08:00:00Z'],
    ['26 nov 9:00', '2027-11-26T08:00:00Z'],
    ['in 2 h', '2026-11-27T12:00:00Z'],
    ['in 90 min', '2026-11-27T11:30:00Z'],
    ['in half an hour', '2026-11-27T10:30:00Z'],
    ['in 2 days 3 hours', '2026-11-29T13:00:00Z'],
    ['next friday 9:00', '2026-12-04T08:00:00Z'],
  ])('“%s” is %s', (text, at) => {
    expect(timeSaid(text, now, zone)).toMatchObject({ instant: at, choices: [], findings: [] });
  });

  it('counts real hours where clocks change on the way', () => {
    const before = new Date('2026-10-24T23:30:00Z');
    expect(timeSaid('in 3 h', before, zone)).toMatchObject({
      instant: '2026-10-25T02:30:00Z',
      wall: '2026-10-25T03:30:00',
    });
  });

  it('is not guessed at: what is missing, over, or not understood is said', () => {
    expect(instant('friday')).toBeUndefined();
    expect(finding('friday')).toContain('Say the time of day');
    expect(finding('tonight')).toContain('Say the time of day');
    expect(finding('in 3 days')).toContain('Say the time of day');
    expect(finding('today 9:00')).toContain('That time is over');
    expect(finding('26 nov 2026 9:00')).toContain('That time is over');
    expect(finding('monday 9:00 or so')).toBe(
      '“or so” was not understood. Write one day and one time, like “fri 9:00”.',
    );
    expect(finding('fri 25:00')).toContain('“25:00” was not understood');
    expect(finding('fri 9-10')).toContain('was not understood');
    expect(finding('now')).toContain('open it by hand');
    expect(finding('in 1 month 2 hours')).toContain('was not understood');
    expect(finding('last friday 9:00')).toContain('That time is over');
    expect(finding('30 feb 9:00')).toContain('is no day and time');
    expect(finding('')).toContain('Say when');
    expect(finding('9:00', '+02:00')).toContain('There is no time zone');
  });

  it.each([
    // Before and after the day changes, in zones on either side of those that machines of the tests have.
    ['fri 12:00', '2026-11-27T10:00:00Z', 'Europe/Berlin', '2026-11-27T11:00:00Z'],
    ['sat 1:00', '2026-11-27T10:00:00Z', 'Europe/Berlin', '2026-11-28T00:00:00Z'],
    ['thu 23:30', '2026-11-27T10:00:00Z', 'Europe/Berlin', '2026-12-03T22:30:00Z'],
    ['tomorrow 9:00', '2026-11-27T22:30:00Z', 'Europe/Berlin', '2026-11-28T08:00:00Z'],
    ['tomorrow 9:00', '2026-11-27T23:30:00Z', 'Europe/Berlin', '2026-11-29T08:00:00Z'],
    ['9:00', '2026-11-27T23:30:00Z', 'Europe/Berlin', '2026-11-28T08:00:00Z'],
    ['sun 9:00', '2026-11-27T10:00:00Z', 'Pacific/Kiritimati', '2026-11-28T19:00:00Z'],
    ['fri 1:00', '2026-11-27T10:00:00Z', 'America/New_York', '2026-12-04T06:00:00Z'],
    ['1 jan 0:30', '2026-11-27T10:00:00Z', 'Asia/Kolkata', '2026-12-31T19:00:00Z'],
    ['in 14 h', '2027-03-13T18:30:00Z', 'America/New_York', '2027-03-14T08:30:00Z'],
    ['in 26 hours', '2026-11-27T10:00:00Z', 'America/New_York', '2026-11-28T12:00:00Z'],
    ['in 3 days 9:00', '2026-11-27T10:00:00Z', 'Europe/Berlin', '2026-11-30T08:00:00Z'],
    ['next week 9:00', '2026-11-27T10:00:00Z', 'Europe/Berlin', '2026-12-04T08:00:00Z'],
    ['next month 9:00', '2026-11-27T10:00:00Z', 'Europe/Berlin', '2026-12-27T08:00:00Z'],
    ['28 nov 2026 18:30 UTC', '2026-11-27T10:00:00Z', 'Europe/Berlin', '2026-11-28T18:30:00Z'],
    ['sat 0:30 UTC', '2026-11-27T23:45:00Z', 'Europe/Berlin', '2026-11-28T00:30:00Z'],
    ['2026-11-28T00:30+05:30', '2026-11-27T10:00:00Z', 'Europe/Berlin', '2026-11-27T19:00:00Z'],
    // There it is Saturday noon already.
    ['sat 0:30 GMT+13', '2026-11-27T23:45:00Z', 'Europe/Berlin', '2026-12-04T11:30:00Z'],
  ])('“%s” at %s in %s is %s, whatever the zone of the machine', (text, at, where, meant) => {
    const before = process.env.TZ;
    try {
      for (const machine of ['UTC', 'America/New_York', 'Pacific/Apia', 'Pacific/Chatham', 'America/St_Johns']) {
        process.env.TZ = machine;
        expect([machine, timeSaid(text, new Date(at), where)]).toMatchObject([
          machine,
          { instant: meant, findings: [] },
        ]);
      }
    } finally {
      process.env.TZ = before;
      if (before === undefined) delete process.env.TZ;
    }
  });

  it('asks for the day where its two numbers can be day and month, or month and day', () => {
    expect(timeSaid('12/04 18:30', now, zone)).toEqual({
      wall: undefined,
      zone,
      instant: undefined,
      findings: ['That is Mon, 12 Apr 2027 or Fri, 4 Dec 2026. Say which one you mean.'],
      choices: [
        {
          moment: { wall: '2027-04-12T18:30:00', zone },
          ...{ instant: '2027-04-12T16:30:00Z', says: 'Mon, 12 Apr 2027', order: 'day first' },
        },
        {
          moment: { wall: '2026-12-04T18:30:00', zone },
          ...{ instant: '2026-12-04T17:30:00Z', says: 'Fri, 4 Dec 2026', order: 'month first' },
        },
      ],
    });
    for (const text of ['04/12/2026 18:30', '4/12/26 18h30', '04-12-2026 18:30']) {
      expect(timeSaid(text, now, zone).choices.map(({ says }) => says)).toContain('Fri, 4 Dec 2026');
      expect(timeSaid(text, now, zone, 'day first').instant).toBe('2026-12-04T17:30:00Z');
    }
    expect(timeSaid('12/04 18:30', now, zone, 'month first').instant).toBe('2026-12-04T17:30:00Z');
    expect(timeSaid('12/04 18:30', now, zone, 'day first').instant).toBe('2027-04-12T16:30:00Z');
    // Where only one order is a day, or both are the same, nothing has to be asked.
    for (const text of ['12/25 9:00', '25/12 9:00', '25.12. 9:00']) {
      for (const order of ['ask', 'day first', 'month first'] as const) {
        expect(timeSaid(text, now, zone, order).instant).toBe('2026-12-25T08:00:00Z');
      }
    }
    expect(timeSaid('12/12 9:00', now, zone).instant).toBe('2026-12-12T08:00:00Z');
    expect(timeSaid('4.12. 9:00', now, zone).instant).toBe('2026-12-04T08:00:00Z');
    expect(timeSaid('2026-12-04 9:00', now, zone, 'month first').instant).toBe('2026-12-04T08:00:00Z');
  });

  it('says both days where the time of day is missing, too, and which order has decided', () => {
    const said = timeSaid('12/1', now, zone);
    expect(said).toMatchObject({ instant: undefined, choices: [] });
    expect(said.findings[0]).toContain('That is Tue, 12 Jan 2027 or Tue, 1 Dec 2026.');
    expect(timeSaid('12/1 9:00', now, zone, 'month first')).toMatchObject({ order: 'month first', findings: [] });
    expect(timeSaid('25/12 9:00', now, zone, 'month first').order).toBeUndefined();
  });

  it('takes the order that the weekday beside it tells', () => {
    expect(timeSaid('fri 4/12 9:00', now, zone)).toMatchObject({ instant: '2026-12-04T08:00:00Z', findings: [] });
    expect(timeSaid('mon 4/12 9:00', now, zone)).toMatchObject({ instant: '2027-04-12T07:00:00Z', findings: [] });
    expect(timeSaid('sun 4/12 9:00', now, zone).findings).toEqual([
      '4 Dec 2026 is a Friday, not a Sunday. Say the day again.',
    ]);
  });

  it('says where a date has another weekday', () => {
    expect(finding('mon 1 dec 9:00')).toBe('1 Dec 2026 is a Tuesday, not a Monday. Say the day again.');
    expect(instant('mon 1 dec 9:00')).toBeUndefined();
    expect(instant('tue 1 dec 9:00')).toBe('2026-12-01T08:00:00Z');
    // The 26th is over for this year; that of the next is a Friday.
    expect(instant('fri 26 nov 9:00')).toBe('2027-11-26T08:00:00Z');
    expect(finding('mon 1 dec 2026 9:00 +02:00')).toContain('is a Tuesday');
  });

  it.each([
    ['fri 9:00 London', 'Europe/London', '2026-12-04T09:00:00Z'],
    ['fri 9:00 in new york', 'America/New_York', '2026-11-27T14:00:00Z'],
    ['9:00 New York fri', 'America/New_York', '2026-11-27T14:00:00Z'],
    ['9:00 port of spain', 'America/Port_of_Spain', '2026-11-27T13:00:00Z'],
    ['3 may 9:00 Kolkata time', 'Asia/Kolkata', '2027-05-03T03:30:00Z'],
    ['fri 9:00 america/los_angeles', 'America/Los_Angeles', '2026-11-27T17:00:00Z'],
    ['28 nov 18:30 ET', 'America/New_York', '2026-11-28T23:30:00Z'],
    ['28 nov 18:30 est', 'America/New_York', '2026-11-28T23:30:00Z'],
    ['sat 9:00 GMT', 'UTC', '2026-11-28T09:00:00Z'],
    ['fri 9:00 UTC', 'UTC', '2026-12-04T09:00:00Z'],
    ['fri 9:00 Z', 'UTC', '2026-12-04T09:00:00Z'],
    // An offset is no zone: the time is kept as it is where the manager is.
    ['fri 9:00 +02:00', 'Europe/Berlin', '2026-12-04T07:00:00Z'],
    ['fri 9:00 UTC+2', 'Europe/Berlin', '2026-12-04T07:00:00Z'],
    ['fri 9:00 CET', 'Europe/Berlin', '2026-12-04T08:00:00Z'],
  ])('“%s” is said in %s, at %s', (text, where, at) => {
    expect(timeSaid(text, now, zone)).toMatchObject({ zone: where, instant: at, findings: [], choices: [] });
  });

  it('keeps the manager’s own zone where its clocks are the ones named', () => {
    expect(timeSaid('fri 9:00 CET', now, 'Europe/Paris')).toMatchObject({ zone: 'Europe/Paris' });
    expect(timeSaid('fri 9:00 CET', now, 'Africa/Lagos')).toMatchObject({ zone: 'Europe/Berlin' });
  });

  it('takes the clocks that are named where a time comes twice, and asks where they are not shown that day', () => {
    const winter = { instant: '2027-10-31T01:30:00Z', wall: '2027-10-31T02:30:00', which: 'second', findings: [] };
    expect(timeSaid('31 oct 2027 2:30 CET', now, zone)).toMatchObject(winter);
    expect(timeSaid('2027-10-31T01:30Z', now, zone)).toMatchObject(winter);
    const summer = { instant: '2027-10-31T00:30:00Z', wall: '2027-10-31T02:30:00', which: 'first', findings: [] };
    expect(timeSaid('31 oct 2027 2:30 CEST', now, zone)).toMatchObject(summer);
    expect(timeSaid('7 nov 2027 1:30 EST', now, zone)).toMatchObject({ instant: '2027-11-07T06:30:00Z' });
    const { instant: none, choices, findings } = timeSaid('15 jul 2027 9:00 CET', now, zone);
    expect([none, choices.map((choice) => choice.instant)]).toEqual([
      undefined,
      ['2027-07-15T07:00:00Z', '2027-07-15T08:00:00Z'],
    ]);
    expect(findings[0]).toContain('do not show CET');
    expect(finding('28 mar 2027 2:30 CET')).toContain('does not exist');
    expect(finding('fri 9:00 CST')).toContain('the time of several countries');
    expect(finding('fri 9:00 Europe/Nowhere')).toContain('There is no time zone “Europe/Nowhere”');
    expect(finding('fri 9:00 Munich')).toContain('“Munich” was not understood');
  });

  it.each([
    ['18h', '2026-11-27T17:00:00Z'],
    ['fri 18h', '2026-11-27T17:00:00Z'],
    ['in 2h', '2026-11-27T12:00:00Z'],
    ['2h from now', '2026-11-27T12:00:00Z'],
    ['fri 24:00', '2026-11-27T23:00:00Z'],
    ['30 nov 24:00', '2026-11-30T23:00:00Z'],
    ['fri 0:00', '2026-12-03T23:00:00Z'],
    // There is one midnight only that is to come today.
    ['midnight', '2026-11-27T23:00:00Z'],
    ['tonight at midnight', '2026-11-27T23:00:00Z'],
    ['12am', '2026-11-27T23:00:00Z'],
    ['27 nov 2026 midnight', '2026-11-27T23:00:00Z'],
  ])('“%s” is %s', (text, at) => {
    expect(timeSaid(text, now, zone)).toMatchObject({ instant: at, choices: [], findings: [] });
  });

  it.each(['tomorrow midnight', 'midnight on sat', '28 nov 12 am'])('asks which night “%s” is', (text) => {
    expect(timeSaid(text, now, zone)).toMatchObject({
      instant: undefined,
      choices: [
        { says: 'The night from Fri 27 Nov to Sat 28 Nov', instant: '2026-11-27T23:00:00Z' },
        { says: 'The night from Sat 28 Nov to Sun 29 Nov', instant: '2026-11-28T23:00:00Z' },
      ],
    });
  });

  it('asks for the night as well as for the order of a date', () => {
    expect(timeSaid('4/12 midnight', now, zone).choices.map(({ order, instant: at }) => [order, at])).toEqual([
      ['day first', '2026-12-03T23:00:00Z'],
      ['day first', '2026-12-04T23:00:00Z'],
      ['month first', '2027-04-11T22:00:00Z'],
      ['month first', '2027-04-12T22:00:00Z'],
    ]);
  });

  it('takes a zone in any case', () => {
    expect(timeSaid('9:00', now, 'europe/berlin').zone).toBe('Europe/Berlin');
  });
});
