import { compare, type Fraction, floor, ZERO } from '../time';
import { overLimit, type TextLimit } from '../words/limits';
import type { Chapter } from './chapters';

/** What a site asks of chapters; the profile of each site holds one. Lengths in whole seconds. */
export interface ChapterRules {
  firstAtZero: boolean;
  fewest: number;
  shortest: number;
  most?: number;
  longestTitle?: TextLimit;
}

/** Which rule is broken. */
export type ChapterRule = 'start' | 'fewest' | 'most' | 'shortest' | 'title' | 'no title' | 'order' | 'beyond';

/** What is wrong with the chapters; `index` names the chapter, and is undefined where the whole list is meant. */
export interface ChapterFinding {
  rule: ChapterRule;
  index: number | undefined;
  what: string;
}

const count = (chapters: number) => `${chapters} ${chapters === 1 ? 'chapter' : 'chapters'}`;

/**
 * What of the chapters breaks a site's rules; none means that the site shows them. No chapters break no rule.
 * @param rules of one site
 * @param duration of the cut, in seconds; undefined where it is not known yet
 */
export function chapterFindings(
  chapters: readonly Chapter[],
  rules: ChapterRules,
  duration: Fraction | undefined,
): ChapterFinding[] {
  const findings: ChapterFinding[] = [];
  if (chapters.length === 0) return findings;
  const find = (rule: ChapterRule, index: number | undefined, what: string) => findings.push({ rule, index, what });
  if (chapters.length < rules.fewest) {
    find('fewest', undefined, `${count(chapters.length)}; the site wants ${rules.fewest} or more`);
  }
  if (rules.most !== undefined && chapters.length > rules.most) {
    find('most', undefined, `${count(chapters.length)}; the site takes ${rules.most}`);
  }
  if (rules.firstAtZero && floor(chapters[0]?.time ?? ZERO) !== 0) {
    find('start', 0, 'The first chapter does not start at 0:00');
  }
  chapters.forEach((chapter, index) => {
    const before = chapters[index - 1];
    if (chapter.title === '') find('no title', index, 'The chapter has no name');
    const over = rules.longestTitle && overLimit(chapter.title, rules.longestTitle, 'the site');
    if (over) find('title', index, `The title is ${over}`);
    if (before && floor(chapter.time) <= floor(before.time))
      find('order', index, 'It does not start after the one before it');
    if (duration && compare(chapter.time, duration) >= 0) find('beyond', index, 'It starts after the end of the video');
    const end = chapters[index + 1]?.time ?? duration;
    if (!end) return;
    // Viewers' stamps are whole seconds, and a site measures between those.
    const seconds = floor(end) - floor(chapter.time);
    if (seconds >= 0 && seconds < rules.shortest)
      find('shortest', index, `${seconds} s long; the site wants ${rules.shortest}`);
  });
  return findings;
}
