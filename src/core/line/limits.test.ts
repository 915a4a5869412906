import { describe, expect, it } from 'vitest';
import { EVERYTHING, holdsAt, type LineLimit, minuteOfDay, shareOfLine } from './limits';

const limit = (owner: string, megabits: number, hours?: LineLimit['hours']): LineLimit => ({
  owner,
  kilobits: megabits * 1000,
  hours,
});
const noon = new Date('2026-11-26T12:00:00Z');
const one = { onChannel: 1, inAll: 1 };

describe('the line', () => {
  it('is free without a limit', () => {
    expect(shareOfLine([], 'a', one, noon)).toBeUndefined();
    expect(shareOfLine([limit('b', 8)], 'a', one, noon)).toBeUndefined();
  });

  it('is shared equally, and the narrower limit holds (8 Mbit/s are 1,000,000 bytes a second)', () => {
    const limits = [limit('a', 8), limit(EVERYTHING, 16)];
    expect(shareOfLine(limits, 'a', one, noon)).toBe(1_000_000);
    expect(shareOfLine(limits, 'a', { onChannel: 2, inAll: 2 }, noon)).toBe(500_000);
    expect(shareOfLine(limits, 'b', { onChannel: 1, inAll: 8 }, noon)).toBe(250_000);
  });

  it('has hours by the clock of a zone, over midnight, too, also where clocks change', () => {
    const zone = 'America/St_Johns';
    expect(minuteOfDay(noon, zone)).toBe(8 * 60 + 30);
    const work = { hours: { from: 9 * 60, to: 17 * 60, zone: 'Europe/London' } };
    expect(holdsAt(work, noon)).toBe(true);
    expect(holdsAt(work, new Date('2026-11-26T17:00:00Z'))).toBe(false);
    // In summer its clocks are an hour ahead of UTC (IANA time zone database).
    expect(holdsAt(work, new Date('2026-07-01T08:00:00Z'))).toBe(true);
    const night = { hours: { from: 22 * 60, to: 6 * 60, zone: 'UTC' } };
    expect([21, 23, 3, 6].map((hour) => holdsAt(night, new Date(Date.UTC(2026, 0, 1, hour))))).toEqual([
      false,
      true,
      true,
      false,
    ]);
    expect(holdsAt({ hours: undefined }, noon)).toBe(true);
  });
});
