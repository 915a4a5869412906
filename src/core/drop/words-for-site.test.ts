import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { PLAIN_DECLARATIONS } from '../declarations';
import type { SiteRules } from '../delivery';
import { fraction } from '../time';
import { hashWord, linksIn, PLAIN_TEMPLATE, PLAIN_TITLE, textLength } from '../words';
import { type RecordWords, wordsForSite } from './words-for-site';

const RECORD = {
  title: 'The spokeshave',
  summary: 'Flat sole, sharp iron.',
  titlePattern: PLAIN_TITLE,
  template: PLAIN_TEMPLATE,
  links: [],
  tags: ['spokeshave', 'hand tools', 'Öl & Pech'],
  names: { channel: 'Marrow Quay', series: '', episode: '', date: '', shelf: {} },
  declarations: { ...PLAIN_DECLARATIONS, forChildren: true, credits: [{ role: 'Camera', name: 'Isa' }] },
};

const POSTS: SiteRules = {
  name: 'Posts',
  file: { containers: [], videoCodecs: [], largest: 1, longest: undefined, mostPixels: undefined },
  title: undefined,
  text: { most: 60, unit: 'grapheme', links: true },
  fold: undefined,
  tags: 'words in the text',
  chapters: undefined,
  picture: undefined,
  privacies: {},
  opensItself: false,
  declares: { groups: [{ name: 'All', fields: ['comments', 'credits'] }] },
  captions: false,
};

const fittedFor = (record: Partial<RecordWords>, rules: Partial<SiteRules> = {}, own = {}) => {
  const { words, ...rest } = wordsForSite({ ...RECORD, ...record }, own, [], fraction(60), { ...POSTS, ...rules });
  return { ...words, ...rest };
};
const wordsOf = (rules: Partial<SiteRules> = {}, own = {}) => fittedFor({}, rules, own);

describe('words of a site without a title', () => {
  it('begin with it, and end in # words while there is room; the others are said', () => {
    const { text, title, leftOut } = wordsOf();
    expect(title).toBe('');
    expect(text).toBe('The spokeshave\n\nFlat sole, sharp iron.\n\n#spokeshave #ÖlPech');
    expect(leftOut).toEqual(['#handtools']);
  });

  it('are those of the channel alone where some were written', () => {
    expect(wordsOf({}, { text: 'Sharp. #spokeshave' }).text).toBe('Sharp. #spokeshave\n\n#handtools #ÖlPech');
    expect(wordsOf({ tags: undefined }, { text: 'Sharp.' }).text).toBe('Sharp.');
  });

  it('are never cut where they were written by hand: what is over is found instead', () => {
    const { text, findings } = wordsOf({}, { text: 'word '.repeat(20) });
    expect(text).toContain('word word');
    expect(findings[0]?.what).toContain('39 characters over the 60');
  });

  it('say at the template what keeps it from being read', () => {
    expect(fittedFor({ template: '{{#links}}' }).findings).toEqual([
      { place: 'template', what: expect.stringContaining('Unclosed section') },
    ]);
  });

  it('are never over the limit for their # words', () => {
    const tags = fc.array(fc.string({ maxLength: 20 }), { maxLength: 12 });
    fc.assert(
      fc.property(tags, fc.integer({ min: 40, max: 120 }), (all, most) => {
        const text = { ...POSTS.text, most, unit: 'grapheme' as const, links: true };
        const words = fittedFor({ tags: all }, { text });
        expect(textLength(words.text, 'grapheme')).toBeLessThanOrEqual(most);
        for (const tag of all) {
          const word = hashWord(tag);
          if (word) expect(words.text.includes(word) || words.leftOut.includes(word)).toBe(true);
        }
      }),
    );
  });
});

describe('words of a site', () => {
  it('take the channel’s own title, and nothing that the site has no place for', () => {
    const title = { most: 20, unit: 'utf16' as const };
    expect(wordsOf({ title, tags: undefined }, { title: 'Its own' })).toMatchObject({
      title: 'Its own',
      text: 'Flat sole, sharp iron.',
      tags: [],
    });
    expect(wordsOf({ text: undefined, tags: undefined }).text).toBe('');
  });

  it('carry the declarations in force that it takes, and no others', () => {
    expect(wordsOf().declared).toEqual({ comments: 'open', credits: [{ role: 'Camera', name: 'Isa' }] });
    expect(wordsOf({ declares: undefined }).declared).toEqual({});
  });
});

describe('links and # words', () => {
  it('are found in a text', () => {
    expect(linksIn('See https://a.example/b?c and www.d.example, not e.g. this.')).toEqual([
      'https://a.example/b?c',
      'www.d.example,',
    ]);
    expect(hashWord('hand tools, slowly')).toBe('#handtoolsslowly');
    expect(hashWord('!?')).toBeUndefined();
  });
});
