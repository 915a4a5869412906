import { type Chapter, type ChapterLine, chapterLines, chapterText } from '../chapters';
import { type Declarations, declarationsInForce, declaredTo } from '../declarations';
import type { Privacy, SiteRules } from '../delivery';
import type { Fraction } from '../time';
import { hashWord, textLength } from '../words';

/** Words that were written for one channel, in the place of the record's. */
export interface OwnWords {
  title?: string;
  text?: string;
}

/** The words of a video's record that go to sites. */
export interface RecordWords {
  title: string;
  description: string;
  tags: readonly string[];
  privacy: Privacy;
  declarations: Declarations;
}

/** The words as one site gets them: what is sent, and what proofing expects to read back. */
export interface SiteWords {
  title: string;
  text: string;
  tags: string[];
  chapters: ChapterLine[];
  /** The chapters' exact times in the file, in the order of `chapters`. */
  chapterTimes: Fraction[];
  declared: Partial<Declarations>;
  /** What had no room, in words; it is said, and not sent. */
  leftOut: string[];
}

/**
 * Fits a record to a site: a title where it has one, chapters as lines below the text where it takes them so, tags as #
 * words at the end of the text where it has no list of them, and of the declarations those that it takes.
 */
export function wordsForSite(
  record: RecordWords,
  own: OwnWords,
  chapters: readonly Chapter[],
  duration: Fraction | undefined,
  site: SiteRules,
): SiteWords {
  const title = (own.title ?? record.title).trim();
  const lines = site.chapters ? chapterLines(chapters, duration) : [];
  const below = site.chapters?.way === 'description' && lines.length > 0 ? chapterText(lines) : '';
  const written = own.text ?? [site.title ? '' : title, record.description.trim()].filter(Boolean).join('\n\n');
  const text = site.text ? [written.trim(), below].filter(Boolean).join('\n\n') : '';
  const words: SiteWords = {
    title: site.title ? title : '',
    text,
    tags: typeof site.tags === 'object' ? [...record.tags] : [],
    chapters: lines,
    chapterTimes: site.chapters ? chapters.map(({ time }) => time) : [],
    declared: declaredTo(declarationsInForce(record.declarations).declarations, site.declares),
    leftOut: [],
  };
  return site.tags === 'words in the text' ? withHashWords(words, record.tags, site) : words;
}

/** Puts # words at the end of the text while there is room; the others are said. */
function withHashWords(words: SiteWords, tags: readonly string[], site: SiteRules): SiteWords {
  const leftOut: string[] = [];
  let text = words.text;
  let first = true;
  for (const tag of tags) {
    const word = hashWord(tag);
    if (!word || text.includes(word)) continue;
    const longer: string = `${text}${first ? '\n\n' : ' '}${word}`.trimStart();
    if (site.text && textLength(longer, site.text.unit) > site.text.most) {
      leftOut.push(word);
      continue;
    }
    [text, first] = [longer, false];
  }
  return { ...words, text, leftOut };
}
