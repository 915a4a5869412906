import { describe, expect, it } from 'vitest';
import { ADVERT_WAYS, COMMENT_WAYS, LICENCES } from '@/core/declarations';
import { DEFAULT_FIELDS, PLAIN_DEFAULTS, RELEASES } from '@/core/defaults';
import { PRIVACIES } from '@/core/delivery';
import { CHILDREN_ANSWERS, CHOICES, FLAGS, PRIVACY_WORDS } from './choices';

const offered = (field: keyof typeof CHOICES) => CHOICES[field]?.map(([value]) => value);

describe('what the fields of a layer offer', () => {
  it('is everything that there is to choose, once', () => {
    expect(offered('privacy')).toEqual([...PRIVACIES]);
    expect(offered('release')).toEqual([...RELEASES]);
    expect(offered('licence')).toEqual([...LICENCES]);
    expect(offered('comments')).toEqual([...COMMENT_WAYS]);
    expect(offered('adverts')).toEqual([...ADVERT_WAYS]);
    expect(CHILDREN_ANSWERS.map(({ value }) => value)).toEqual([false, true]);
  });

  it('is in words, no two of them alike', () => {
    for (const options of Object.values(CHOICES)) {
      const words = options?.map(([, says]) => says) ?? [];
      expect(words.every((says) => says !== '')).toBe(true);
      expect(new Set(words).size).toBe(words.length);
    }
    expect(Object.keys(PRIVACY_WORDS)).toEqual([...PRIVACIES]);
  });

  it('has a box to tick for each field that is yes or no, and for no other', () => {
    const flags = DEFAULT_FIELDS.filter((field) => typeof PLAIN_DEFAULTS[field] === 'boolean');
    expect(Object.keys(FLAGS).sort()).toEqual([...flags].sort());
    expect(Object.keys(FLAGS).filter((field) => field in CHOICES)).toEqual([]);
  });
});
