import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { suggestTags } from './tag-suggestions';
import { tagVariants } from './tag-variants';
import { tagKey } from './word-shapes';

const variants = (tag: string, context: string[] = []) => tagVariants(tag, context).map((each) => each.tag);

describe('variants of a tag', () => {
  it.each([
    ['steam box', [], ['steambox', 'steam boxes']],
    ['steambox', ['steam bending', 'a box of ribs'], ['steam box', 'steamboxes']],
    ['spoke-shaves', [], ['spokeshaves', 'spoke shaves', 'spoke shave']],
    ['harbour', [], ['harbours', 'harbor']],
    ['gray paint', [], ['graypaint', 'gray paints', 'grey paint']],
    ['varnish', [], ['varnishes']],
    ['exercise', [], ['exercises']],
    ['2026', [], []],
  ])('%s', (tag, context, expected) => {
    expect(variants(tag, context)).toEqual(expected);
  });

  it('are never the tag itself, nor the same twice', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 20 }), fc.array(fc.string({ maxLength: 8 })), (tag, context) => {
        const all = variants(tag, context);
        expect(new Set(all).size).toBe(all.length);
        expect(all).not.toContain(tag.normalize('NFKC').toLowerCase().trim());
      }),
    );
  });
});

const EARLIER = [
  { title: 'Steaming the ribs', tags: ['steam bending', 'ribs', 'green oak', 'marrow quay'] },
  { title: 'More ribs', tags: ['ribs', 'steam bending', 'marrow quay'] },
  { title: 'The keel', tags: ['keel', 'scarf joint', 'marrow quay'] },
];
const NONE = { title: '', summary: '', captions: '', tags: [], earlier: [] };

describe('suggested tags', () => {
  it('are those that went with the words on earlier videos, the most telling first, with the reason', () => {
    const offers = suggestTags({ ...NONE, title: 'Bending the last ribs', tags: ['Ribs'], earlier: EARLIER });
    expect(offers[0]).toEqual({ tag: 'steam bending', why: 'went with “ribs” on 2 of 2 earlier videos' });
    expect(offers.map(({ tag }) => tag)).toEqual(['steam bending', 'marrow quay', 'green oak']);
  });

  it('are frequent phrases of what is said; parts of a longer one are left to it', () => {
    const captions = 'A scarf joint holds.\nCut the scarf joint, then the keel.\nThis scarf joint is done. The keel.';
    expect(suggestTags({ ...NONE, captions })).toEqual([{ tag: 'scarf joint', why: 'stands 3 times in the captions' }]);
    const summary = 'Green oak for the rib. Green oak again.';
    expect(suggestTags({ ...NONE, summary })[0]?.why).toBe('stands twice in the title and summary');
  });

  it('are none where nothing tells anything', () => {
    expect(suggestTags({ ...NONE, title: 'Untold', earlier: EARLIER })).toEqual([]);
    expect(suggestTags(NONE)).toEqual([]);
  });

  it('name nothing that is there already, and nothing twice', () => {
    const word = fc.constantFrom('keel', 'keels', 'scarf joint', 'Scarf-joint', 'oak', 'the');
    fc.assert(
      fc.property(fc.array(word), fc.array(word), fc.array(word), (tags, title, said) => {
        const input = { ...NONE, tags, title: title.join(' '), captions: said.join('. '), earlier: EARLIER };
        const keys = suggestTags(input).map(({ tag }) => tagKey(tag));
        expect(new Set(keys).size).toBe(keys.length);
        for (const tag of tags) expect(keys).not.toContain(tagKey(tag));
      }),
    );
  });
});
