import { describe, expect, it } from 'vitest';
import { countriesInWords, countryName } from './countries';
import { COUNTRY_CODES } from './country-codes';
import { PLAIN_DECLARATIONS } from './declarations';
import { declarationFindings } from './findings';

const RULES = { groups: [{ name: 'For whom', fields: ['countries'] as const }] };

describe('where a video may be watched', () => {
  it('is told in words, the same for the same countries in another order', () => {
    expect(countriesInWords({ way: 'everywhere', codes: ['CA'] })).toBe('');
    expect(countriesInWords({ way: 'only in', codes: ['GB', 'CA'] })).toBe('only in Canada, United Kingdom');
    expect(countriesInWords({ way: 'everywhere but', codes: ['CA', 'GB'] })).toBe(
      countriesInWords({ way: 'everywhere but', codes: ['GB', 'CA'] }),
    );
  });

  // ISO 3166-1: 249 codes are officially assigned (from memory); the list of the package has one more, XK, in wide use.
  it('knows every country of ISO 3166-1, each with a name', () => {
    expect(COUNTRY_CODES.filter((code) => code !== 'XK')).toHaveLength(249);
    expect(COUNTRY_CODES.filter((code) => countryName(code) === code)).toEqual([]);
    expect(countryName('no code')).toBe('no code');
  });

  it('has to name a country where it is not everywhere', () => {
    const of = (way: 'only in' | 'everywhere', codes: string[]) =>
      declarationFindings({ ...PLAIN_DECLARATIONS, countries: { way, codes } }, RULES, 'S').map(({ field }) => field);
    expect(of('only in', [])).toEqual(['countries']);
    expect(of('only in', ['CA'])).toEqual([]);
    expect(of('everywhere', [])).toEqual([]);
  });
});
