import { chapterFindings } from '../chapters';
import type { SiteRules } from '../delivery';
import { fitTags } from './fit-tags';
import { Fitting, hasOwnChapters, textFindings } from './fit-text';
import { fitTitle } from './fit-title';
import { chaptersInText } from './own-chapters';
import type { FitInput, Fitted } from './shapes';

/**
 * The words as a site gets them: the fullest text that fits by the site's own count, never cut inside a word, a link or a
 * chapter line, and what was left out.
 * @throws TemplateError where the template or the title's pattern cannot be read
 */
export function fitToSite(input: FitInput, site: SiteRules): Fitted {
  const { title, ...ofTitle } = fitTitle(input, site);
  const findings = [...ofTitle.findings];
  const leftOut = [...ofTitle.leftOut];
  const chapters = hasOwnChapters(input, site) ? chaptersInText(input.byHand?.text ?? '') : input.chapters;
  let [text, whole] = ['', site.chapters !== undefined];
  if (site.text) {
    const fitting = new Fitting(input, site);
    findings.push(...fitting.blanks());
    const full = fitting.fullest();
    leftOut.push(...full.leftOut);
    text = full.text;
    if (site.chapters?.way === 'description') whole = full.chapters;
    findings.push(...textFindings(text, site.text, site));
  }
  if (site.chapters && whole) {
    for (const { what, index } of chapterFindings(chapters, site.chapters.rules, input.duration)) {
      const which = index === undefined ? '' : `“${chapters[index]?.title}”: `;
      findings.push({ place: 'chapters', what: `${which}${what}` });
    }
  }
  const list = typeof site.tags === 'object' ? fitTags(input.tags, site.tags, site.name) : { tags: [], leftOut: [] };
  // A blank that both title and text have is one thing to settle.
  const once = [...new Map(findings.map((finding) => [finding.what, finding])).values()];
  const listed = whole ? chapters : [];
  return { title, text, tags: list.tags, leftOut: [...leftOut, ...list.leftOut], findings: once, chapters: listed };
}
