import { describe, expect, it } from 'vitest';
import { timeSaid } from '@/core/release';
import { zoneSaid } from '@/core/release/zone-said';

// The names of clocks are those of the Unicode CLDR (release of the engine’s ICU), in the English of where they are used.
const NAMES: readonly [language: string, ...names: string[]][] = [
  ['en-GB', 'CET', 'CEST', 'EET', 'EEST', 'WET', 'WEST', 'BST'],
  ['en-US', 'EST', 'EDT', 'CDT', 'MST', 'MDT', 'PST', 'PDT', 'AKST', 'AKDT', 'HST'],
  ['en-AU', 'AEST', 'AEDT', 'ACST', 'ACDT', 'AWST'],
  ['en-NZ', 'NZST', 'NZDT'],
];
const OF_LANGUAGE = NAMES.flatMap(([language, ...names]) => names.map((name) => [name, language] as const));

/** What CLDR calls the clocks of a zone at an instant, and how many minutes they are east of UTC. */
function clocksAt(language: string, timeZone: string, at: Date): [name: string, minutes: number] {
  const named = (timeZoneName: 'short' | 'longOffset') =>
    new Intl.DateTimeFormat(language, { timeZone, timeZoneName })
      .formatToParts(at)
      .find(({ type }) => type === 'timeZoneName')?.value ?? '';
  const [, sign, hours = '0', minutes = '0'] = /GMT([+-])(\d\d):(\d\d)/.exec(named('longOffset')) ?? [];
  return [named('short'), (sign === '-' ? -1 : 1) * (Number(hours) * 60 + Number(minutes))];
}

describe('names of clocks', () => {
  it.each(OF_LANGUAGE)('%s is what CLDR calls it, with as many minutes', (name, language) => {
    const { zone = '', clocks } = zoneSaid(`9:00 ${name}`);
    const [winter, summer] = [new Date('2027-01-15T12:00:00Z'), new Date('2027-07-15T12:00:00Z')];
    expect([clocksAt(language, zone, winter), clocksAt(language, zone, summer)]).toContainEqual([
      name,
      clocks?.minutes,
    ]);
  });

  // The tz database as the engine has it: each city is the last part of a zone’s name.
  it('finds each city that the tz database names', () => {
    const zones = Intl.supportedValuesOf('timeZone').filter((zone) => zone.includes('/'));
    const now = new Date('2026-11-27T10:00:00Z');
    const lost = zones.filter((zone) => {
      const city = zone.split('/').at(-1)?.replaceAll('_', ' ') ?? '';
      const [said, meant] = [timeSaid(`3 may 9:00 ${city}`, now, 'UTC'), timeSaid('3 may 9:00', now, zone)];
      return said.instant !== meant.instant;
    });
    expect(lost).toEqual([]);
  });
});
