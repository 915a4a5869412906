import { execFileSync } from 'node:child_process';
import { describe, expect, it } from 'vitest';
import { instantOf, instantsOf, momentAt, siteDates, timeSaid } from '@/core/release';
import { SITE_PROFILES } from '@/sites/profiles';
import { kettle } from '../setup/command';

/**
 * Transitions as the IANA time zone database publishes them (files europe, northamerica, australasia, africa of release
 * 2026a, whose comments give each rule with its source). The rules are from memory; the instants are worked out from them by
 * hand.
 *
 * Each: zone, a time that does not exist with how the clocks go, a time that comes twice with both instants.
 */
const TRANSITIONS = [
  // EU rule (file europe): last Sunday of March and October, 01:00 UTC.
  ['Europe/Berlin', '2027-03-28T02:30:00', '02:00 to 03:00', '2026-10-25T02:30:00', ['00:30', '01:30'], '2026-10-25'],
  // Newfoundland (file northamerica): since 2011-11 at 02:00 on the second Sunday of March and first of November; UTC−3:30.
  [
    'America/St_Johns',
    '2027-03-14T02:30:00',
    '02:00 to 03:00',
    '2026-11-01T01:30:00',
    ['04:00', '05:00'],
    '2026-11-01',
  ],
  // Lord Howe (file australasia): half an hour, first Sunday of October and April at 02:00.
  [
    'Australia/Lord_Howe',
    '2026-10-04T02:15:00',
    '02:00 to 02:30',
    '2027-04-04T01:45:00',
    ['14:45', '15:15'],
    '2027-04-03',
  ],
] as const;

describe('IANA time zone database', () => {
  it.each(TRANSITIONS)(
    '%s: a time that the clocks jump over, and one that comes twice',
    (zone, gap, jump, twice, at, day) => {
      expect(instantsOf({ wall: gap, zone })).toEqual([]);
      const jumped = timeSaid(gap, new Date('2026-01-01T00:00:00Z'), zone);
      expect(jumped).toMatchObject({ instant: undefined, choices: [] });
      expect(jumped.findings[0]).toContain(`the clocks go from ${jump}`);
      const both = at.map((time) => `${day}T${time}:00Z`);
      expect(instantsOf({ wall: twice, zone })).toEqual(both);
      const asked = timeSaid(twice, new Date('2026-01-01T00:00:00Z'), zone);
      expect(asked).toMatchObject({ instant: undefined, choices: both.map((instant) => ({ instant })) });
      expect(instantOf({ wall: twice, zone, which: 'first' }).toISOString()).toBe(`${day}T${at[0]}:00.000Z`);
      expect(instantOf({ wall: twice, zone, which: 'second' }).toISOString()).toBe(`${day}T${at[1]}:00.000Z`);
      for (const instant of both) expect(instantOf(momentAt(new Date(instant), zone))).toEqual(new Date(instant));
    },
  );

  it('Pacific/Apia has no 30 December 2011 (file australasia: Samoa crossed the date line at the end of the 29th)', () => {
    const left = timeSaid('2011-12-30 12:00', new Date('2011-12-01T00:00:00Z'), 'Pacific/Apia');
    expect(left.findings[0]).toContain('from 23:59 on Thu, 29 Dec 2011 to 00:00 on Sat, 31 Dec 2011');
    expect(instantsOf({ wall: '2011-12-29T23:00:00', zone: 'Pacific/Apia' })).toEqual(['2011-12-30T09:00:00Z']);
    expect(instantsOf({ wall: '2011-12-31T00:00:00', zone: 'Pacific/Apia' })).toEqual(['2011-12-30T10:00:00Z']);
  });

  it('Africa/Casablanca goes back for Ramadan and forth after it (file africa: 2027 from 7 February 03:00 to 14 March 02:00)', () => {
    const zone = 'Africa/Casablanca';
    expect(instantsOf({ wall: '2027-02-07T02:30:00', zone })).toEqual(['2027-02-07T01:30:00Z', '2027-02-07T02:30:00Z']);
    expect(instantsOf({ wall: '2027-03-14T02:30:00', zone })).toEqual([]);
  });
});

describe('a wall time whose zone has other rules by then', () => {
  it('that the clocks have come to jump over is later by as much (RFC 5545 §3.3.5)', () => {
    // Its example: 2:30 of the day on which New York's clocks go from 2:00 to 3:00 is 3:30 in summer time.
    expect(instantOf({ wall: '2007-03-11T02:30:00', zone: 'America/New_York' }).toISOString()).toBe(
      '2007-03-11T07:30:00.000Z',
    );
    // And 1:30 of the day on which they go back is the first of both.
    expect(instantOf({ wall: '2007-11-04T01:30:00', zone: 'America/New_York' }).toISOString()).toBe(
      '2007-11-04T05:30:00.000Z',
    );
  });
});

describe('the date that a site prints', () => {
  it('is that of its own zone: a morning in the east is the day before on a site further west (common practice, no source)', () => {
    const dates = siteDates(new Date('2026-11-27T00:30:00Z'), 'Europe/Berlin', Object.values(SITE_PROFILES));
    expect(dates).toEqual([
      { site: 'Lanternfold', zone: 'America/St_Johns', date: '2026-11-26', otherDay: true },
      { site: 'Fieldgate', zone: 'UTC', date: '2026-11-27', otherDay: false },
      { site: 'Pipwire', zone: null, date: '2026-11-27', otherDay: false },
    ]);
  });
});

describe('the date that a site prints, held against date of the GNU core utilities', () => {
  it.each(['2026-11-27T00:30:00Z', '2026-03-29T03:29:00Z', '2027-01-01T03:31:00Z', '2026-06-30T23:59:59Z'])(
    '%s',
    (instant) => {
      for (const { zone, date } of siteDates(new Date(instant), 'Europe/Berlin', Object.values(SITE_PROFILES))) {
        const env = { ...process.env, TZ: zone ?? 'Europe/Berlin' };
        expect([zone, date]).toEqual([zone, execFileSync('date', ['-d', instant, '+%F'], { env }).toString().trim()]);
      }
    },
  );
});

describe('kettle when', () => {
  const run = (text: string, ...more: string[]) =>
    kettle(['when', text, '--zone', 'Europe/Berlin', '--now', '2026-11-26T10:00:00Z', '--json', ...more]);

  it('prints the instant, the wall time and the sites’ dates', async () => {
    const { status, out } = await run('fri 1:00', '--site', 'lanternfold');
    expect(status).toBe(0);
    expect(JSON.parse(out)).toEqual({
      instant: '2026-11-27T00:00:00Z',
      wall: '2026-11-27T01:00:00',
      zone: 'Europe/Berlin',
      sites: [{ site: 'Lanternfold', zone: 'America/St_Johns', date: '2026-11-26', otherDay: true }],
      choices: [],
      findings: [],
    });
  });

  it('ends with 1 and no instant where there is none, or where there are two', async () => {
    const gap = await run('28 mar 2027 2:30');
    expect(gap.status).toBe(1);
    expect(JSON.parse(gap.out)).toMatchObject({ choices: [], findings: [expect.stringContaining('does not exist')] });
    expect(JSON.parse(gap.out)).not.toHaveProperty('instant');
    const twice = await run('31 oct 2027 2:30');
    expect(twice.status).toBe(1);
    expect(JSON.parse(twice.out).choices).toEqual(['2027-10-31T00:30:00Z', '2027-10-31T01:30:00Z']);
  });

  it('shows the choices, and takes the order of day and month', async () => {
    const asked = await kettle(['when', '12/04 18:30', '--zone', 'Europe/Berlin', '--now', '2026-11-26T10:00:00Z']);
    expect(asked).toMatchObject({
      status: 1,
      out: '2027-04-12T16:30:00Z  Mon, 12 Apr 2027\n2026-12-04T17:30:00Z  Fri, 4 Dec 2026\n',
    });
    expect(JSON.parse((await run('12/04 18:30', '--order', 'mdy')).out)).toMatchObject({
      instant: '2026-12-04T17:30:00Z',
    });
    expect(JSON.parse((await run('12/04 18:30', '--order', 'DMY')).out)).toMatchObject({
      instant: '2027-04-12T16:30:00Z',
    });
    expect(await run('12/04 18:30', '--order', 'ydm')).toMatchObject({
      status: 1,
      said: 'kettle: “ydm” is no order. Say dmy or mdy.\n',
    });
  });

  it('says what it did not understand', async () => {
    const bad = await kettle(['when', 'fri 9:00', '--zone', 'Europe/Berlin', '--now', 'yesterday']);
    expect(bad).toMatchObject({ status: 1, said: expect.stringContaining('“yesterday” is no instant') });
    const zone = await kettle(['when', 'fri 9:00', '--zone', 'Atlantis/Port']);
    expect(zone).toMatchObject({ status: 1, said: expect.stringContaining('There is no time zone “Atlantis/Port”') });
  });
});
