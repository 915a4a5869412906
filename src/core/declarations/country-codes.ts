import codes from 'i18n-iso-countries/codes.json' with { type: 'json' };

/** The codes of all countries (ISO 3166-1 alpha-2). */
export const COUNTRY_CODES: readonly string[] = codes.map(([alpha2 = '']) => alpha2);
