/** Where a video may be watched. */
export const COUNTRY_WAYS = ['everywhere', 'only in', 'everywhere but'] as const;

/** Where a video may be watched; the codes (ISO 3166-1 alpha-2) count where the way is not `everywhere`. */
export interface CountryRule {
  way: (typeof COUNTRY_WAYS)[number];
  codes: string[];
}

const names = new Intl.DisplayNames('en', { type: 'region', fallback: 'code' });

/** The name of a country by its code; what is no code stays as it is. */
export const countryName = (code: string): string => (/^[A-Z]{2}$/.test(code) ? (names.of(code) ?? code) : code);

/** A rule in words, the same for the same countries in another order; '' is everywhere. */
export function countriesInWords({ way, codes: listed }: CountryRule): string {
  if (way === 'everywhere') return '';
  return `${way} ${listed.map(countryName).sort().join(', ')}`;
}
