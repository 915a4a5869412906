import { type Fraction, toDecimal } from '../../time';
import type { Part } from '../part';
import { isSame } from '../same';

const inWords = (at: Fraction | '' | undefined) => (at ? `the frame at ${toDecimal(at, 2)} s` : 'the site’s own');

export const moment: Part<'moment'> = {
  label: 'thumbnail',
  place: 'picture',
  mustBeRight: true,
  wanted: (from, site) => (site.picture === 'a moment' ? (from.moment ?? '') : undefined),
  same: isSame,
  changes(was, is) {
    const [before, now] = [inWords(was), inWords(is)];
    return before === now ? [] : [{ field: 'thumbnail', was: before, is: now }];
  },
  expected: () => undefined,
  differences: () => [],
};
