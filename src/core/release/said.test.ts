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
    expect(finding('30 feb 9:00')).toContain('is no day and time');
    expect(finding('')).toContain('Say when');
    expect(finding('9:00', '+02:00')).toContain('There is no time zone');
  });

  it('takes a zone in any case', () => {
    expect(timeSaid('9:00', now, 'europe/berlin').zone).toBe('Europe/Berlin');
  });
});
