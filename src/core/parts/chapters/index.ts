import type { ChapterLine } from '../../time';
import { chapterText } from '../../time';
import type { Part } from '../part';
import { isSame } from '../same';

const inWords = (lines: readonly ChapterLine[]) => chapterText(lines);

export const chapters: Part<'chapters'> = {
  label: 'chapters',
  place: 'chapters',
  mustBeRight: true,
  wanted({ words }, site) {
    if (!site.chapters) return undefined;
    const lines = words.chapters;
    // In a text, lines are all that there is of them.
    if (site.chapters.way === 'description') return { lines, times: [] };
    return { lines, times: words.chapterTimes, duration: words.duration };
  },
  same: isSame,
  changes(was, is) {
    const [before, now] = [inWords(was?.lines ?? []), inWords(is.lines)];
    if (before !== now) return [{ field: 'chapters', was: before, is: now }];
    return !was || isSame(was, is) ? [] : [{ field: 'chapters', was: 'the times before', is: 'other times' }];
  },
  // A text that has none of ours may have lines of its own that its site takes for chapters.
  expected: ({ lines }, site) => (site.chapters?.way === 'description' && lines.length === 0 ? undefined : lines),
  differences(meant, shown) {
    if (shown && isSame(meant, shown)) return [];
    const is = shown ? inWords(shown) : 'nothing';
    return [{ field: 'chapters', was: inWords(meant), is }];
  },
  asGiven: (shown = [], given) => ({ ...given, lines: shown, times: given?.times ?? [] }),
  takenOverWith: (site) => (site.chapters?.way === 'description' ? 'text' : undefined),
};
