import type { Part } from '../part';
import { isSame, isSameSet } from '../same';

const inWords = (languages: readonly string[]) => [...languages].sort().join(', ');
const languagesOf = (tracks: readonly { language: string }[] = []) => tracks.map(({ language }) => language);

export const captions: Part<'captions'> = {
  label: 'captions',
  place: 'captions',
  mustBeRight: false,
  wanted: (from, site) => (site.captions ? from.captions : undefined),
  same: isSame,
  changes(was, is) {
    if (was ? isSame(was, is) : is.length === 0) return [];
    const [before, now] = [inWords(languagesOf(was)), inWords(languagesOf(is))];
    return [{ field: 'captions', was: before, is: before === now ? `others, in ${now}` : now }];
  },
  expected: languagesOf,
  differences: (meant, shown) =>
    shown && isSameSet(meant, shown)
      ? []
      : [{ field: 'captions', was: inWords(meant), is: shown ? inWords(shown) : 'nothing' }],
  asGiven: (shown = []) => shown.map((language) => ({ id: '', language })),
};
