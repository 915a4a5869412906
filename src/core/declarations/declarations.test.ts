import { describe, expect, it } from 'vitest';
import { type DeclarationRules, type Declarations, PLAIN_DECLARATIONS } from './declarations';
import { declarationFindings, declaredTo } from './findings';
import { declarationsInForce } from './for-children';
import { gtinFinding, gtinsFromText } from './gtin';

const RULES: DeclarationRules = {
  groups: [
    { name: 'For whom', fields: ['forChildren', 'adultsOnly'] },
    { name: 'About it', fields: ['category', 'products', 'comments'] },
  ],
  categories: [{ id: 'craft', name: 'Craft' }],
  products: { fewest: 1, most: 2 },
};
const WELL: Declarations = {
  ...PLAIN_DECLARATIONS,
  forChildren: false,
  category: 'craft',
  products: ['4006381333931'],
};

describe('declarations', () => {
  it('of the law have no silent answer', () => {
    const asked = declarationFindings({ ...WELL, forChildren: undefined }, RULES, 'S');
    expect(asked).toEqual([{ field: 'forChildren', what: 'Say whether it is aimed at children' }]);
    expect(declarationFindings({ ...WELL, forChildren: false }, RULES, 'S')).toEqual([]);
  });

  it('are held against what a site takes, and against nothing else', () => {
    const wrong = { ...WELL, category: 'boats', products: ['1', '4006381333932', '4006381333931'] };
    expect(declarationFindings(wrong, RULES, 'S').map(({ field }) => field)).toEqual([
      'category',
      'products',
      'products',
      'products',
    ]);
    expect(declarationFindings(wrong, { groups: [] }, 'S')).toEqual([]);
    expect(declarationFindings(wrong, undefined, 'S')).toEqual([]);
    expect(declarationFindings({ ...WELL, products: [] }, RULES, 'S')[0]?.what).toContain('at least one product');
    const both = declarationFindings({ ...WELL, forChildren: true, adultsOnly: true }, RULES, 'S');
    expect(both[0]?.field).toBe('adultsOnly');
  });

  it('go out as the site takes them', () => {
    expect(declaredTo(WELL, { groups: [{ name: 'All', fields: ['category', 'comments'] }] })).toEqual({
      category: 'craft',
      comments: 'open',
    });
  });

  // Common practice: laws on children's data forbid adverts by interest. From memory; nothing else follows from it here.
  it('aimed at children switch off adverts by interest and nothing else, say so, and keep what was set', () => {
    const set = { ...WELL, forChildren: true, adverts: 'by interest' as const };
    const { declarations, switchedOff } = declarationsInForce(set);
    expect(declarations).toEqual({ ...set, adverts: 'by context' });
    expect(switchedOff.map(({ what }) => what)).toEqual(['adverts by interest']);
    expect(set.adverts).toBe('by interest');
    expect(declarationsInForce(WELL)).toEqual({ declarations: WELL, switchedOff: [] });
    expect(declarationsInForce({ ...set, adverts: 'off' }).switchedOff).toEqual([]);
  });
});

describe('numbers of products', () => {
  it('come from text, each once', () => {
    expect(gtinsFromText(' 96385074, 4006381333931\n96385074;')).toEqual(['96385074', '4006381333931']);
  });

  it('say what is wrong with them', () => {
    expect(gtinFinding('12a')).toContain('digits alone');
    expect(gtinFinding('123456789')).toContain('9 digits');
    expect(gtinFinding('96385075')).toContain('would have to be 4');
    expect(gtinFinding('4 006381 333931')).toBeUndefined();
  });
});
