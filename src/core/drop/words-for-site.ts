import { type Chapter, type ChapterLine, chapterLines, chapterText } from '../chapters';
import type { Privacy, SiteRules } from '../delivery';
import type { Fraction } from '../time';

/** The words of a video's record that go to sites. */
export interface RecordWords {
  title: string;
  description: string;
  tags: readonly string[];
  privacy: Privacy;
}

/** The words as one site gets them: what is sent, and what proofing expects to read back. */
export interface SiteWords {
  title: string;
  text: string;
  tags: string[];
  chapters: ChapterLine[];
}

/** Fits a record to a site: chapters become lines below the description where the site takes them so. */
export function wordsForSite(
  record: RecordWords,
  chapters: readonly Chapter[],
  duration: Fraction | undefined,
  site: SiteRules,
): SiteWords {
  const lines = site.chapters ? chapterLines(chapters, duration) : [];
  const below = site.chapters?.way === 'description' && lines.length > 0 ? chapterText(lines) : '';
  const text = [record.description.trim(), below].filter(Boolean).join('\n\n');
  return { title: record.title.trim(), text, tags: site.tags ? [...record.tags] : [], chapters: lines };
}
