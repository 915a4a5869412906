import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { differences, fieldsMeant, type Showing } from './proof';

const MEANT: Showing = {
  title: 'Keel',
  text: 'Text',
  tags: ['a', 'b'],
  chapters: [{ stamp: '0:00', title: 'One' }],
  privacy: 'everyone',
  groups: ['p1', 'p2'],
  pictureDigest: 'a'.repeat(64),
  fileDigest: 'b'.repeat(64),
  captions: ['en', 'de'],
  declared: { category: 'craft', forChildren: false, credits: [{ role: 'Camera', name: 'Isa' }] },
};
const fields = (shown: Partial<Showing>) => differences(MEANT, { ...MEANT, ...shown }).map(({ field }) => field);

describe('proofing', () => {
  it('finds nothing where the site shows what was meant', () => {
    expect(differences(MEANT, MEANT)).toEqual([]);
    expect(fieldsMeant(MEANT)).toBe(12);
  });

  it.each<[string, Partial<Showing>]>([
    ['title', { title: 'Keel ' }],
    ['description', { text: '' }],
    ['tags', { tags: ['b', 'a'] }],
    ['chapters', { chapters: [] }],
    ['privacy', { privacy: 'private' }],
    ['playlist', { groups: ['p1'] }],
    ['thumbnail', { pictureDigest: undefined }],
    ['file', { fileDigest: 'c'.repeat(64) }],
    ['captions', { captions: ['en'] }],
    ['category', { declared: { ...MEANT.declared, category: 'music' } }],
    ['aimed at children', { declared: { ...MEANT.declared, forChildren: true } }],
    ['credits', { declared: { ...MEANT.declared, credits: [{ role: 'Sound', name: 'Isa' }] } }],
  ])('names %s, and nothing else, where that differs', (field, shown) => {
    expect(fields(shown)).toEqual([field]);
  });

  it('takes playlists and captions in any order', () => {
    expect(fields({ groups: ['p2', 'p1'], captions: ['de', 'en'] })).toEqual([]);
  });

  it('compares nothing that was not meant', () => {
    const nothing = Object.fromEntries(Object.keys(MEANT).map((key) => [key, undefined])) as unknown as Showing;
    expect(differences(nothing, MEANT)).toEqual([]);
    expect(fieldsMeant(nothing)).toBe(0);
  });

  it('says nothing of what a site does not keep where nothing was said', () => {
    expect(differences({ ...MEANT, declared: { place: '' } }, { ...MEANT, declared: {} })).toEqual([]);
  });

  it('shows both sides as they are, and digests short', () => {
    const [title, file] = differences(MEANT, { ...MEANT, title: undefined, fileDigest: 'c'.repeat(64) });
    expect(title).toEqual({ field: 'title', meant: 'Keel', shown: 'nothing' });
    expect(file).toEqual({ field: 'file', meant: 'bbbbbbbbbbbb', shown: 'cccccccccccc' });
  });

  it('finds every text that differs in any sign', () => {
    fc.assert(
      fc.property(fc.string(), fc.string(), (meant, shown) => {
        const found = differences({ ...MEANT, text: meant }, { ...MEANT, text: shown });
        expect(found.length).toBe(meant === shown ? 0 : 1);
      }),
    );
  });
});
