import { compare, type Fraction, floor, ZERO } from '../time';
import { type TextLimit, textLength } from '../words/limits';
import type { Chapter } from './chapters';
import { type ChapterRules, chapterFindings } from './rules';

/** The name that an opening chapter gets. */
export const OPENING_TITLE = 'Opening';

/** Moves the first chapter to 0:00. */
export function moveFirstToZero(chapters: readonly Chapter[]): Chapter[] {
  return chapters.map((chapter, index) => (index === 0 ? { ...chapter, time: ZERO, repair: 'moved' } : chapter));
}

/** Puts an opening chapter at 0:00 before the first. */
export function putOpening(chapters: readonly Chapter[]): Chapter[] {
  return [{ markerId: undefined, time: ZERO, title: OPENING_TITLE, repair: 'put in' }, ...chapters];
}

/**
 * Lets the chapters start at 0:00: where the first lies later, an opening chapter is put before it, or, where that would
 * be shorter than `shortest` seconds, the first is moved.
 */
export function startAtZero(chapters: readonly Chapter[], shortest: number): Chapter[] {
  const start = chapters[0] ? floor(chapters[0].time) : 0;
  if (start === 0) return [...chapters];
  return start >= shortest ? putOpening(chapters) : moveFirstToZero(chapters);
}

/** Gives a chapter without a name one by its place in the list: “Part 3”. */
export function nameByNumber(chapters: readonly Chapter[], index: number): Chapter[] {
  return chapters.map((chapter, at) =>
    at === index ? { ...chapter, title: `Part ${index + 1}`, repair: 'named' as const } : chapter,
  );
}

/** Joins a chapter to the one before it, or the first to the one after it, keeping the longer-standing start and name. */
export function joinToNeighbour(chapters: readonly Chapter[], index: number): Chapter[] {
  const [first, second] = chapters;
  if (index === 0 && first && second) {
    return [{ ...second, time: first.time, repair: 'joined' }, ...chapters.slice(2)];
  }
  return chapters.flatMap((chapter, at) => {
    if (at === index) return [];
    return at === index - 1 ? [{ ...chapter, repair: 'joined' as const }] : [chapter];
  });
}

/** Shortens a title to a limit at the end of a word; a word that is too long by itself is cut between graphemes. */
export function shortenTitle(title: string, limit: TextLimit): string {
  if (textLength(title, limit.unit) <= limit.most) return title;
  const segments = (granularity: 'word' | 'grapheme') =>
    [...new Intl.Segmenter('en', { granularity }).segment(title)].map((part) => part.segment);
  const fill = (parts: string[]) => {
    let kept = '';
    for (const part of parts) {
      if (textLength(`${kept}${part}…`, limit.unit) > limit.most) break;
      kept += part;
    }
    return kept.replace(/[\s,;:–—-]+$/, '');
  };
  const kept = fill(segments('word')) || fill(segments('grapheme'));
  return textLength(`${kept}…`, limit.unit) <= limit.most ? `${kept}…` : kept;
}

/** The chapters in order, without those beyond the end and those that share a second with the one before. */
export function inOrder(chapters: readonly Chapter[], duration: Fraction | undefined): Chapter[] {
  const sorted = [...chapters].sort((a, b) => compare(a.time, b.time));
  return sorted.filter((chapter, index) => {
    const before = sorted[index - 1];
    if (duration && compare(chapter.time, duration) >= 0) return false;
    return !before || floor(before.time) !== floor(chapter.time);
  });
}

/**
 * Repairs what can be repaired so that a site shows the chapters: order, start, short ones, missing names, long titles. Too
 * few and too many stay as they are, since only a person knows what to do about them.
 * @param rules of the strictest site
 * @param duration of the cut, in seconds; undefined where it is not known yet
 */
export function repairChapters(
  chapters: readonly Chapter[],
  rules: ChapterRules,
  duration: Fraction | undefined,
): Chapter[] {
  let repaired = inOrder(chapters, duration);
  if (rules.firstAtZero) repaired = startAtZero(repaired, rules.shortest);
  for (let rounds = repaired.length; rounds > 0; rounds -= 1) {
    const short = chapterFindings(repaired, rules, duration).find((finding) => finding.rule === 'shortest');
    if (short?.index === undefined || repaired.length < 2) break;
    repaired = joinToNeighbour(repaired, short.index);
  }
  repaired.forEach(({ title }, index) => {
    if (title === '') repaired = nameByNumber(repaired, index);
  });
  const { longestTitle } = rules;
  if (!longestTitle) return repaired;
  return repaired.map((chapter) => {
    const title = shortenTitle(chapter.title, longestTitle);
    return title === chapter.title ? chapter : { ...chapter, title, repair: 'shortened' };
  });
}
