import { type Chapter, chapterLines } from '../chapters';
import { type Declarations, declarationsInForce, declaredTo } from '../declarations';
import type { SiteRules } from '../delivery';
import { type FitFinding, type FitPlace, fitToSite, type TextNames } from '../fitting';
import type { FittedTexts } from '../parts';
import type { Fraction } from '../time';
import { type NamedLink, openBlanksIn, TemplateError } from '../words';

/** Words that were written for one channel by hand, in the place of the record's. */
export interface OwnWords {
  title?: string;
  text?: string;
}

/** What the words of one video on one channel are made from, each value as it is in force there. */
export interface RecordWords {
  title: string;
  summary: string;
  titlePattern: string;
  template: string;
  tags: readonly string[];
  links: readonly NamedLink[];
  declarations: Declarations;
  names: TextNames;
  /** Texts that look like blanks and are meant as they stand. */
  meantBlanks?: readonly string[];
}

/** The words as one site gets them, with what is declared to it. */
export interface SiteWords extends FittedTexts {
  declared: Partial<Declarations>;
}

/** Words with what had no room, and what keeps them from being sent. */
export interface FittedWords {
  words: SiteWords;
  /** In words; it is said, and not sent. */
  leftOut: string[];
  findings: FitFinding[];
}

/** Blanks that somebody forgot to fill, wherever they stand in what goes out, each at the field that it came from. */
function openBlanks(record: RecordWords, own: OwnWords, chapters: readonly Chapter[], words: SiteWords): FitFinding[] {
  const credits = (words.declared.credits ?? []).flatMap(({ role, name }) => [role, name]);
  const sources: [FitPlace, readonly string[]][] = [
    ['title', [own.title ?? record.title]],
    ['summary', [own.text ?? record.summary]],
    ['links', record.links.flatMap(({ label, url }) => [label, url])],
    ['tags', record.tags],
    ['chapters', chapters.map(({ title }) => title)],
    ['declared-credits', credits],
  ];
  const all = [words.title, words.text, ...words.tags, ...words.chapters.map(({ title }) => title), ...credits];
  const open = new Set(openBlanksIn(all.join('\n')).filter((blank) => !record.meantBlanks?.includes(blank)));
  return [...open].map((blank) => {
    const place = sources.find(([, texts]) => texts.some((text) => text.includes(blank)))?.[0] ?? 'template';
    return { place, what: `“${blank}” looks like a blank that was not filled in`, blank };
  });
}

/**
 * Fits a record to a site: words and tags by `fitToSite`, and of the declarations those that the site takes.
 * @param own what is set for this channel alone
 * @param duration of the cut, in seconds; undefined where it is not known yet
 */
export function wordsForSite(
  record: RecordWords,
  own: OwnWords,
  chapters: readonly Chapter[],
  duration: Fraction | undefined,
  site: SiteRules,
): FittedWords {
  const declared = declaredTo(declarationsInForce(record.declarations).declarations, site.declares);
  const byHand = { title: own.title, text: own.text };
  try {
    const {
      leftOut,
      findings,
      chapters: listed,
      ...fitted
    } = fitToSite({ ...record, chapters, duration, byHand }, site);
    const lines = chapterLines(listed, duration);
    const words = { ...fitted, chapters: lines, chapterTimes: listed.map(({ time }) => time), duration, declared };
    return { words, leftOut, findings: [...findings, ...openBlanks(record, own, listed, words)] };
  } catch (error) {
    if (!(error instanceof TemplateError)) throw error;
    const none = { title: record.title, text: '', tags: [], chapters: [], chapterTimes: [], declared };
    return { words: none, leftOut: [], findings: [{ place: 'template', what: error.message }] };
  }
}
