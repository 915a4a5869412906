import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { PLAIN_DECLARATIONS } from '../declarations';
import type { SiteRules } from '../delivery';
import { fraction } from '../time';
import { hashWord, linksIn, textLength } from '../words';
import { wordsForSite } from './words-for-site';

const RECORD = {
  title: 'The spokeshave',
  description: 'Flat sole, sharp iron.',
  tags: ['spokeshave', 'hand tools', 'Öl & Pech'],
  privacy: 'private' as const,
  declarations: { ...PLAIN_DECLARATIONS, forChildren: true, credits: [{ role: 'Camera', name: 'Isa' }] },
};

const POSTS: SiteRules = {
  name: 'Posts',
  file: { containers: [], videoCodecs: [], largest: 1, longest: undefined, mostPixels: undefined },
  title: undefined,
  text: { most: 60, unit: 'grapheme', forbidden: [], links: true },
  tags: 'words in the text',
  chapters: undefined,
  picture: undefined,
  privacies: {},
  opensItself: false,
  declares: { fields: ['comments', 'credits'] },
  captions: false,
};

const wordsOf = (rules: Partial<SiteRules> = {}, own = {}) =>
  wordsForSite(RECORD, own, [], fraction(60), { ...POSTS, ...rules });

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

  it('are never over the limit for their # words', () => {
    const tags = fc.array(fc.string({ maxLength: 20 }), { maxLength: 12 });
    fc.assert(
      fc.property(tags, fc.integer({ min: 40, max: 120 }), (all, most) => {
        const text = { ...POSTS.text, most, unit: 'grapheme' as const, forbidden: [], links: true };
        const words = wordsForSite({ ...RECORD, tags: all }, {}, [], undefined, { ...POSTS, text });
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
    expect(wordsOf().declared).toEqual({ comments: 'off', credits: [{ role: 'Camera', name: 'Isa' }] });
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
