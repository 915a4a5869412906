import { describe, expect, it } from 'vitest';
import { blanksIn, renderTemplate } from '../words';
import { dayInWords, shelfView, TEMPLATE_NAMES } from './names';

const SHELF = {
  plans: { label: 'Plans', url: 'https://l.example/p' },
  bare: { label: ' ', url: 'https://l.example/b' },
};

describe('a day in words', () => {
  it.each([
    ['2026-11-25', '', '25 November 2026'],
    ['2026-11-25', 'en', 'November 25, 2026'],
    ['2026-11-25', 'de', '25. November 2026'],
    ['2026-01-01', 'en-GB', '1 January 2026'],
    ['2026-11-25', 'tlh', '25 November 2026'],
  ])('%s in “%s” is %s', (day, language, words) => {
    // As CLDR has them, the data of Unicode that Node.js carries.
    expect(dayInWords(day, language)).toBe(words);
  });
});

describe('the shelf in a template', () => {
  it('gives whole lines and addresses alone', () => {
    const view = shelfView(SHELF, true);
    expect(renderTemplate('{{shelf.plans}}|{{address.plans}}|{{shelf.bare}}', view)).toBe(
      'Plans: https://l.example/p|https://l.example/p|https://l.example/b',
    );
  });

  it('gives nothing where a site takes no links, and a name that it has not is a blank', () => {
    const view = shelfView(SHELF, false);
    expect(renderTemplate('[{{shelf.plans}}{{address.bare}}]', view)).toBe('[]');
    expect(blanksIn('{{shelf.gone}}', shelfView(SHELF, true)).map(({ name }) => name)).toEqual(['shelf.gone']);
  });

  it('is never mistaken for what every object has', () => {
    expect(() => blanksIn('{{shelf.constructor}}', shelfView(SHELF, true))).toThrow('Nothing is called');
  });
});

describe('the names that are offered', () => {
  it('can each stand in a template as they are', () => {
    for (const { name, section } of TEMPLATE_NAMES) {
      const template = section ? `{{#${name}}}x{{/${name}}}` : `{{${name}}}`;
      expect(() => renderTemplate(template, {})).not.toThrow();
    }
    expect(new Set(TEMPLATE_NAMES.map(({ name }) => name)).size).toBe(TEMPLATE_NAMES.length);
  });
});
