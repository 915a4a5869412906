import { describe, expect, it } from 'vitest';
import { PLAIN_DECLARATIONS } from '@/core/declarations';
import { SITE_PROFILES } from './profiles';
import { wordsShape } from './words-shape';

const WELL = { title: 'T', text: 'Words', tags: ['a'], declared: { forChildren: false, products: ['2000000000015'] } };

function refusal(site: string, words: object): Promise<string | undefined> {
  const profile = SITE_PROFILES[site];
  if (!profile) throw new Error(`There is no site ${site}`);
  return wordsShape(profile)
    .validate({ ...WELL, ...words })
    .then(
      () => undefined,
      (error: Error) => error.message,
    );
}

describe('words held against a site’s profile', () => {
  it.each(Object.keys(SITE_PROFILES))('are taken where they are well: %s', async (site) => {
    expect(await refusal(site, {})).toBeUndefined();
  });

  it.each([
    ['lanternfold', { title: '🛶'.repeat(49) }, 'The title is 2 characters over the 96'],
    ['lanternfold', { text: 'https://a.example '.repeat(26) }, '26 links; Lanternfold takes 25'],
    ['lanternfold', { tags: Array.from({ length: 25 }, (_, n) => `t${n}`) }, '25 tags'],
    ['lanternfold', { declared: { ...PLAIN_DECLARATIONS } }, 'aimed at children'],
    ['fieldgate', { title: '🛶'.repeat(111) }, '1 characters over the 110'],
    ['fieldgate', { tags: ['x'.repeat(31)] }, 'longer than 30'],
    ['pipwire', { text: '👩‍👩‍👧'.repeat(241) }, '1 characters over the 240'],
    ['stallmarket', { title: 'ö'.repeat(38) }, '1 bytes over the 75'],
    ['stallmarket', { text: 'see www.example.org' }, 'no links'],
    ['stallmarket', { declared: { products: [] } }, 'at least one product'],
    ['stallmarket', { title: '' }, 'The title is empty'],
  ])('%s refuses %j', async (site, words, says) => {
    expect(await refusal(site, words)).toContain(says);
  });

  it('count a family as one where the site counts graphemes', async () => {
    expect(await refusal('pipwire', { text: '👩‍👩‍👧'.repeat(240) })).toBeUndefined();
  });
});
