import { plainPart } from '@/core/parts/plain-part';

/** A part that only tests have: a motto in the language of the video, on sites with a motto. It is a text, as a title is. */
export const motto = plainPart<'title'>({
  label: 'motto',
  place: 'declared-language',
  mustBeRight: false,
  wanted: ({ declarations }, site) => (site.name === 'Toyfold' ? `Spoken in ${declarations.language}` : undefined),
  finding: (value) => (value.length > 30 ? 'The motto is too long' : undefined),
  inWords: (value) => value,
  takeOver: (shown) => ({ set: { language: shown.replace('Spoken in ', '') } }),
  texts: (value) => [value],
});
