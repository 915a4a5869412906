import { chapterLines } from '../chapters';
import type { SiteRules } from '../delivery';
import { chapterText } from '../time';
import {
  blanksIn,
  cutName,
  hashWord,
  isWithin,
  linkFinding,
  linkLine,
  type NamedLink,
  namesIn,
  overLimit,
  PLAIN_TEMPLATE,
  partsThatMayGo,
  renderTemplate,
  shelfNamesIn,
  type TemplateView,
  templateTrouble,
} from '../words';
import { mayBeEmpty, namesView, openBlank } from './blanks';
import { chaptersInText } from './own-chapters';
import type { FitFinding, FitInput } from './shapes';

/** How much of the input is used. */
interface Cut {
  /** Parts of the template that are gone, by their numbers. */
  gone: readonly number[];
  hashWords: readonly string[];
  /** Which of the links are there, in their order. */
  links: readonly NamedLink[];
  chapters: boolean;
  /** Words of the summary, or undefined for all. */
  summaryWords: number | undefined;
  /** Words of a title that leads the text, or undefined for all. */
  titleWords: number | undefined;
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

/** The tags as # words, each once, without those that stand in the text already. */
function wordsNotIn(text: string, tags: readonly string[]): string[] {
  return [...new Set(tags.flatMap((tag) => hashWord(tag) ?? []))].filter((word) => !text.includes(word));
}

/** The lines of a text that a shorter one no longer has. */
function linesLost(text: string, shorter: string): string {
  const keptLines = new Set(shorter.split('\n'));
  return text
    .split('\n')
    .filter((line) => line !== '' && !keptLines.has(line))
    .join(' / ');
}

/** Whether a text by hand has chapters of its own in it, on a site that reads them there: these hold, and none are added. */
export const hasOwnChapters = ({ byHand }: Pick<FitInput, 'byHand'>, site: SiteRules) =>
  site.chapters?.way === 'description' && chaptersInText(byHand?.text ?? '').length > 0;

/** Whether a template places a name by itself. */
const places = (template: string, name: string) =>
  !templateTrouble(template) && namesIn(template).some((each) => each === name);

/** The text of one input on one site. */
export class Fitting {
  private readonly template: string;
  private readonly summary: string;
  private readonly hashWords: readonly string[];
  private readonly links: readonly NamedLink[];
  private readonly chapters: string;
  private readonly parts: number[];
  /** Whether the text has the title that a list beside it would have elsewhere. */
  private readonly leads: boolean;
  readonly whole: Cut;

  constructor(
    private readonly input: FitInput,
    private readonly site: SiteRules,
  ) {
    const byHand = input.byHand?.text;
    const body =
      byHand !== undefined ? '{{{summary}}}' : input.template.trim() === '' ? PLAIN_TEMPLATE : input.template;
    this.summary = (byHand ?? input.summary).trim();
    const inText = site.chapters?.way === 'description' && !hasOwnChapters(input, site);
    const lines = inText ? chapterLines(input.chapters, input.duration) : [];
    this.chapters = chapterText(lines);
    // Where the site has no title, the text begins with it; what the template does not place stands at the end.
    this.template = [
      site.title || byHand !== undefined || places(body, 'title') ? '' : '{{#title}}{{title}}{{/title}}\n\n',
      body,
      places(body, 'chapters') ? '' : '\n\n{{chapters}}',
      places(body, 'hashtags') ? '' : '\n\n{{hashtags}}',
    ].join('');
    this.links = site.text?.links === false || byHand !== undefined ? [] : input.links;
    this.parts = partsThatMayGo(this.template);
    this.leads = !site.title && byHand === undefined;
    const all = { links: this.links, chapters: true, summaryWords: undefined, titleWords: undefined };
    const bare: Cut = { ...all, gone: [], hashWords: [] };
    this.hashWords = site.tags === 'words in the text' ? wordsNotIn(this.render(bare), input.tags) : [];
    this.whole = { ...bare, hashWords: this.hashWords };
  }

  private view(cut: Cut): TemplateView {
    const parts: TemplateView = Object.fromEntries(this.parts.map((part) => [cutName(part), !cut.gone.includes(part)]));
    const names = namesView(this.input, this.site);
    return {
      ...names,
      title: cut.titleWords === undefined ? names.title : firstWords(this.input.title.trim(), cut.titleWords),
      ...parts,
      summary: cut.summaryWords === undefined ? this.summary : firstWords(this.summary, cut.summaryWords),
      links: cut.links.map((link) => ({ ...link, line: linkLine(link) })),
      chapters: cut.chapters ? this.chapters : '',
      hashtags: cut.hashWords.join(' '),
    };
  }

  /** Blanks that are left open: names for which there is nothing, and that are not the site's or the video's to lack. */
  blanks(): FitFinding[] {
    const open = blanksIn(this.template, this.view(this.whole), mayBeEmpty(this.input, this.site));
    const names = [...new Set(open.map(({ name }) => name))];
    return names.map((name) => openBlank(name));
  }

  /** Links that the site does not take, each with its reason. */
  linksNotTaken(): string[] {
    if (this.site.text?.links !== false || this.input.byHand?.text !== undefined) return [];
    const { shelf = {} } = this.input.names ?? {};
    const used = shelfNamesIn(this.template).flatMap((name) => shelf[name] ?? []);
    const all = new Set([...this.input.links, ...used].map(({ label, url }) => `link ${label} ${url}`));
    return [...all].map((link) => `${link}: ${this.site.name} takes no links`);
  }

  render(cut: Cut): string {
    return renderTemplate(this.template, this.view(cut))
      .replace(/[ \t]+$/gm, '')
      .replace(/\n{3,}/g, '\n\n')
      .trim();
  }

  private fits(cut: Cut): boolean {
    const { text } = this.site;
    return !text || isWithin(this.render(cut), text);
  }

  /**
   * The fullest text that fits, with what went. The more important comes first: the title that leads the text, the summary,
   * the chapters, links from the first, # words from the first, the parts that the template lets go from the one that goes
   * last. Each is there where it has room after those before it, so that one long link costs itself alone.
   */
  fullest(): { text: string; chapters: boolean; leftOut: string[] } {
    const cut = this.fits(this.whole) ? this.whole : this.filled(this.least());
    const text = this.render(cut);
    return { text, chapters: cut.chapters, leftOut: [...this.gone(cut, text), ...this.linksNotTaken()] };
  }

  /** The cut with nothing in it that can be left out; of summary and title as many words as there is room for. */
  private least(): Cut {
    let cut: Cut = { ...this.whole, gone: this.parts, hashWords: [], links: [], chapters: false };
    if (!this.fits(cut) && this.input.byHand?.text === undefined) {
      cut = { ...cut, summaryWords: this.mostWords(this.summary, cut, 'summaryWords') };
    }
    if (!this.fits(cut) && this.leads) {
      cut = { ...cut, titleWords: this.mostWords(this.input.title.trim(), cut, 'titleWords') };
    }
    return cut;
  }

  /** A cut with everything put in that has room. */
  private filled(least: Cut): Cut {
    let now = least;
    const put = (more: Partial<Cut>) => {
      const fuller = { ...now, ...more };
      if (this.fits(fuller)) now = fuller;
    };
    put({ chapters: true });
    for (const link of this.links) put({ links: [...now.links, link] });
    for (const word of this.hashWords) put({ hashWords: [...now.hashWords, word] });
    for (const part of [...this.parts].reverse()) put({ gone: now.gone.filter((each) => each !== part) });
    return now;
  }

  /** What a cut leaves out, in words; what would change nothing of the text is not said. */
  private gone(cut: Cut, text: string): string[] {
    const lost = (more: Partial<Cut>) => linesLost(this.render({ ...cut, ...more }), text);
    const said = (more: Partial<Cut>, says: (lines: string) => string) => {
      const lines = lost(more);
      return lines === '' ? [] : [says(lines)];
    };
    const rest = (whole: string, kept: number) => words(whole).slice(kept).join('').trim();
    return [
      ...cut.gone.flatMap((part) =>
        said({ gone: cut.gone.filter((each) => each !== part) }, (lines) => `part ${part} of the template: “${lines}”`),
      ),
      ...this.hashWords.filter((word) => !cut.hashWords.includes(word)),
      ...this.links
        .filter((link) => !cut.links.includes(link))
        .reverse()
        .flatMap((link) => said({ links: [link] }, () => `link ${linkLine(link)}`)),
      ...(cut.chapters ? [] : said({ chapters: true }, () => 'the chapters')),
      ...(cut.summaryWords === undefined ? [] : [`the end of the summary: “${rest(this.summary, cut.summaryWords)}”`]),
      ...(cut.titleWords === undefined
        ? []
        : [`the end of the title: “${rest(this.input.title.trim(), cut.titleWords)}”`]),
    ];
  }

  /** How many words of a text there is room for. */
  private mostWords(text: string, cut: Cut, field: 'summaryWords' | 'titleWords'): number {
    let [least, most] = [0, words(text).length - 1];
    while (least < most) {
      const middle = Math.ceil((least + most) / 2);
      if (this.fits({ ...cut, [field]: middle })) least = middle;
      else most = middle - 1;
    }
    return Math.max(0, least);
  }
}

/** What a site has against a text that nothing more of may go. */
export function textFindings(text: string, rules: NonNullable<SiteRules['text']>, site: SiteRules): FitFinding[] {
  const findings: FitFinding[] = [];
  const find = (what: string) => findings.push({ place: 'summary', what });
  const over = overLimit(text, rules, site.name);
  if (over) find(`The text is ${over}, and nothing more of it may go`);
  if (text === '' && !site.title) find('The text is empty');
  const links = linkFinding(text, rules, site.name);
  if (links) find(links);
  return findings;
}
