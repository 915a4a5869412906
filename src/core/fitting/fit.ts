import { type Chapter, chapterFindings, chapterLines, chapterText, shortenTitle } from '../chapters';
import type { SiteRules } from '../delivery';
import type { Fraction } from '../time';
import {
  blanksIn,
  hashWord,
  linksIn,
  overLimit,
  partsThatMayGo,
  renderTemplate,
  type TagRules,
  type TemplateView,
  textLength,
} from '../words';

/** A link with the words that stand before it. */
export interface NamedLink {
  label: string;
  url: string;
}

/** What a text is made from. */
export interface FitInput {
  title: string;
  /** Two or three lines about this video. */
  summary: string;
  /** In Mustache; the names are those of `viewOf`. */
  template: string;
  links: readonly NamedLink[];
  tags: readonly string[];
  chapters: readonly Chapter[];
  /** Exact seconds of the cut, where they are known. */
  duration: Fraction | undefined;
  /** More names that the template may use: channel, series, episode, date, and links of the shelf by name. */
  more?: TemplateView;
}

/** What goes to a site, and what of it had no room; nothing is left out that is not listed. */
export interface Fitted {
  title: string;
  text: string;
  tags: string[];
  /** In words, in the order in which it went. */
  leftOut: string[];
  /** What keeps the text from being sent. */
  findings: string[];
}

/** The template of a text that nobody has written one for. */
export const PLAIN_TEMPLATE = '{{summary}}\n\n{{#links}}\n{{label}}: {{url}}\n{{/links}}';

/** How much of the input is used: what goes first when there is no room. */
interface Cut {
  /** Parts of the template with a number up to this are gone. */
  parts: number;
  hashWords: number;
  links: number;
  chapters: boolean;
  /** Words of the summary, or undefined for all. */
  summaryWords: number | undefined;
}

const words = (text: string): string[] => text.match(/\S+\s*/g) ?? [];

/** The first words of a text, with a sign that there was more; a link is a word, and is never cut. */
function firstWords(text: string, count: number): string {
  const kept = words(text)
    .slice(0, count)
    .join('')
    .replace(/[\s,;:–—-]+$/, '');
  return kept === '' ? '' : `${kept}…`;
}

/** The lines of a text that a shorter one no longer has. */
function linesLost(text: string, shorter: string): string {
  const there = new Set(shorter.split('\n'));
  return text
    .split('\n')
    .filter((line) => line !== '' && !there.has(line))
    .join(' / ');
}

class Fitting {
  private readonly template: string;
  private readonly hashWords: string[];
  private readonly links: readonly NamedLink[];
  private readonly chapters: string;
  private readonly parts: number[];
  readonly whole: Cut;

  constructor(
    private readonly input: FitInput,
    private readonly site: SiteRules,
  ) {
    const body = input.template.trim() === '' ? PLAIN_TEMPLATE : input.template;
    // Where the site has no title, the text begins with it; what the template does not place stands at the end.
    const placed = (name: string) => new RegExp(String.raw`\{\{[{&]?\s*${name}\b`).test(body);
    const lines = site.chapters?.way === 'description' ? chapterLines(input.chapters, input.duration) : [];
    this.chapters = chapterText(lines);
    this.hashWords =
      site.tags === 'words in the text' ? [...new Set(input.tags.flatMap((tag) => hashWord(tag) ?? []))] : [];
    this.template = [
      site.title || placed('title') ? '' : '{{title}}\n\n',
      body,
      placed('chapters') ? '' : '\n\n{{chapters}}',
      placed('hashtags') ? '' : '\n\n{{hashtags}}',
    ].join('');
    this.links = site.text?.links === false ? [] : input.links;
    this.parts = partsThatMayGo(this.template);
    this.whole = {
      ...{ parts: 0, chapters: true, summaryWords: undefined },
      ...{ hashWords: this.hashWords.length, links: this.links.length },
    };
  }

  private view(cut: Cut): TemplateView {
    const { title, summary, more = {} } = this.input;
    const go: TemplateView = Object.fromEntries(this.parts.map((part) => [String(part), part > cut.parts]));
    return {
      ...more,
      ...{ title: title.trim(), go },
      summary: cut.summaryWords === undefined ? summary.trim() : firstWords(summary.trim(), cut.summaryWords),
      links: this.links.slice(0, cut.links).map(({ label, url }) => ({ label, url })),
      chapters: cut.chapters ? this.chapters : '',
      hashtags: this.hashWords.slice(0, cut.hashWords).join(' '),
    };
  }

  /** Blanks that are left open: names for which there is nothing, and that are not the site's or the video's to lack. */
  blanks(): string[] {
    const open = blanksIn(this.template, this.view(this.whole), ['chapters', 'hashtags']);
    return [...new Set(open.map(({ name }) => name))];
  }

  render(cut: Cut): string {
    return renderTemplate(this.template, this.view(cut))
      .replace(/[ \t]+$/gm, '')
      .replace(/\n{3,}/g, '\n\n')
      .trim();
  }

  private fits(cut: Cut): boolean {
    const { text } = this.site;
    return !text || textLength(this.render(cut), text.unit) <= text.most;
  }

  /**
   * The fullest text that fits, with what went. In this order things go, each only where what went before was not enough:
   * the parts that the template names, # words from the last, links from the last, the chapters, words of the summary
   * from the last.
   */
  fullest(): { text: string; chapters: boolean; leftOut: string[] } {
    let [cut, text] = [this.whole, this.render(this.whole)];
    const leftOut: string[] = [];
    /** Makes one more cut where it is needed; what changes nothing of the text is not said. */
    const go = (next: Cut, says: (lost: string) => string): boolean => {
      if (this.fits(cut)) return false;
      const shorter = this.render(next);
      if (shorter !== text) leftOut.push(says(linesLost(text, shorter)));
      [cut, text] = [next, shorter];
      return true;
    };
    for (const part of this.parts) go({ ...cut, parts: part }, (lost) => `part ${part} of the template: “${lost}”`);
    while (
      cut.hashWords > 0 &&
      go({ ...cut, hashWords: cut.hashWords - 1 }, () => this.hashWords[cut.hashWords - 1] ?? '')
    );
    while (cut.links > 0 && go({ ...cut, links: cut.links - 1 }, (lost) => `link ${lost}`));
    go({ ...cut, chapters: false }, () => 'the chapters');
    if (!this.fits(cut)) {
      const summaryWords = this.mostSummaryWords(cut);
      const rest = words(this.input.summary.trim()).slice(summaryWords).join('').trim();
      go({ ...cut, summaryWords }, () => `the end of the summary: “${rest}”`);
    }
    if (this.site.text?.links === false) {
      for (const { label, url } of this.input.links)
        leftOut.push(`link ${label} ${url}: ${this.site.name} takes no links`);
    }
    return { text, chapters: cut.chapters, leftOut };
  }

  private mostSummaryWords(cut: Cut): number {
    let [least, most] = [0, words(this.input.summary.trim()).length - 1];
    while (least < most) {
      const middle = Math.ceil((least + most) / 2);
      if (this.fits({ ...cut, summaryWords: middle })) least = middle;
      else most = middle - 1;
    }
    return Math.max(0, least);
  }
}

/** The tags that a site takes of a list, in order, and why the others are left out. */
export function fitTags(tags: readonly string[], rules: TagRules, site: string): { tags: string[]; leftOut: string[] } {
  const fitted: { tags: string[]; leftOut: string[] } = { tags: [], leftOut: [] };
  for (const tag of tags) {
    const why =
      rules.longest !== undefined && [...tag].length > rules.longest
        ? `longer than ${rules.longest} characters`
        : fitted.tags.length >= rules.most
          ? `${site} takes ${rules.most} tags`
          : rules.mostWithCommas !== undefined && [...fitted.tags, tag].join(',').length > rules.mostWithCommas
            ? `${site} takes ${rules.mostWithCommas} characters of tags`
            : undefined;
    if (why) fitted.leftOut.push(`tag ${tag}: ${why}`);
    else fitted.tags.push(tag);
  }
  return fitted;
}

/**
 * The words as a site gets them: the fullest text that fits by the site's own count, never cut inside a word, a link or a
 * chapter line, and what was left out.
 * @throws TemplateError where the template cannot be read
 */
export function fitToSite(input: FitInput, site: SiteRules): Fitted {
  const fitting = new Fitting(input, site);
  const full = fitting.fullest();
  const findings = fitting.blanks().map((name) => `The blank “${name}” is left open`);
  const leftOut: string[] = [];
  const given = input.title.trim();
  const title = site.title ? shortenTitle(given, site.title) : '';
  if (site.title && given === '') findings.push('The title is empty');
  if (site.title && title !== given) leftOut.push(`the end of the title: “${given}”`);
  const text = site.text ? full.text : '';
  if (site.text) {
    leftOut.push(...full.leftOut);
    const over = overLimit(text, site.text, site.name);
    if (over) findings.push(`The text is ${over}, and nothing more of it may go`);
    if (text === '' && !site.title) findings.push('The text is empty');
    for (const sign of site.text.forbidden) {
      if (text.includes(sign)) findings.push(`${site.name} does not take ${sign} in the text`);
    }
    const [link] = site.text.links ? [] : linksIn(text);
    if (link) findings.push(`${site.name} takes no links in the text: ${link}`);
  }
  if (site.chapters && full.chapters) {
    for (const { what } of chapterFindings(input.chapters, site.chapters.rules, input.duration)) findings.push(what);
  }
  const list = typeof site.tags === 'object' ? fitTags(input.tags, site.tags, site.name) : { tags: [], leftOut: [] };
  return { title, text, tags: list.tags, leftOut: [...leftOut, ...list.leftOut], findings };
}
