import type { Part } from '../part';

/** The first signs of a digest tell two files apart for those who read it. */
const brief = (digest: string) => (digest === '' ? 'the site’s own' : digest.slice(0, 12));

export const picture: Part<'picture'> = {
  label: 'thumbnail',
  place: 'picture',
  mustBeRight: true,
  wanted: ({ pictureDigest }, site) => (typeof site.picture === 'object' ? (pictureDigest ?? '') : undefined),
  same: (a, b) => a === b,
  changes(was, is) {
    if (was === is) return [];
    const say = (digest: string | undefined) => (digest ? 'another one' : 'the site’s own');
    if (!was && !is) return [];
    return [{ field: 'thumbnail', was: was ? 'the one before' : say(was), is: say(is) }];
  },
  expected: (value) => value,
  differences: (meant, shown = '') =>
    meant === shown ? [] : [{ field: 'thumbnail', was: brief(meant), is: brief(shown) }],
  asGiven: (shown = '') => shown,
};
