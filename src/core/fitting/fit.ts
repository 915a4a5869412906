import { type Chapter, chapterFindings, chapterLines, shortenTitle } from '../chapters';
import type { SiteRules } from '../delivery';
import type { Fraction } from '../time';
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
  PLAIN_TITLE,
  partsThatMayGo,
  renderTemplate,
  shelfNamesIn,
  type TagRules,
  type TemplateView,
  templateTrouble,
} from '../words';
import { shelfView, type TextNames } from './names';
import { chaptersInText } from './own-chapters';

/** What a text is made from. */
export interface FitInput {
  /** The phrase that people search for, as it was typed. */
  title: string;
  /** In Mustache, around the title; the title alone where not given. */
  titlePattern?: string;
  /** Two or three lines about this video. */
  summary: string;
  /** In Mustache; the names are those of `TEMPLATE_NAMES`. Where it is empty, the summary stands alone. */
  template: string;
  links: readonly NamedLink[];
  tags: readonly string[];
  chapters: readonly Chapter[];
  /** Exact seconds of the cut, where they are known. */
  duration: Fraction | undefined;
  names?: Partial<TextNames>;
  /** Written for this channel alone, in the place of title or text; none of it is ever cut. */
  byHand?: { title?: string; text?: string };
}

/** The places at which what keeps words from being sent is settled. */
export const FIT_PLACES = [
  ...(['title', 'summary', 'series', 'episode', 'template', 'links', 'tags', 'chapters'] as const),
  'declared-credits',
] as const;
export type FitPlace = (typeof FIT_PLACES)[number];

/** Something that keeps words from being sent. */
export interface FitFinding {
  place: FitPlace;
  what: string;
  /** A text that looks like a blank; a person may say that it is meant as it stands. */
  blank?: string;
}

/** What goes to a site, and what of it had no room; nothing is left out that is not listed. */
export interface Fitted {
  title: string;
  text: string;
  tags: string[];
  /** In words, in the order in which it went. */
  leftOut: string[];
  findings: FitFinding[];
  /** The chapters that viewers get: those of a text by hand that has some in it, none where they had no room. */
  chapters: readonly Chapter[];
}

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
const hasOwnChapters = ({ byHand }: Pick<FitInput, 'byHand'>, site: SiteRules) =>
  site.chapters?.way === 'description' && chaptersInText(byHand?.text ?? '').length > 0;

/** Whether a template places a name by itself. */
const places = (template: string, name: string) =>
  !templateTrouble(template) && namesIn(template).some((each) => each === name);

/** What a template sees of the input that no lack of room can change. */
function namesView({ title, names = {} }: Pick<FitInput, 'title' | 'names'>, site: SiteRules): TemplateView {
  const { shelf = {}, ...rest } = names;
  const takesLinks = site.text?.links ?? false;
  return { ...rest, ...shelfView(shelf, takesLinks), title: title.trim(), 'takes-links': takesLinks };
}

/** Names that stand for nothing without being left open: the site's to lack, or links where it takes none. */
function mayBeEmpty({ names }: FitInput, site: SiteRules): string[] {
  const links = site.text?.links ? [] : Object.keys(names?.shelf ?? {});
  return ['chapters', 'hashtags', ...links.flatMap((name) => [`shelf.${name}`, `address.${name}`])];
}

const blankWords = (name: string) => {
  const onShelf = /^(?:shelf|address)\.(.+)$/.exec(name)?.[1];
  return onShelf ? `There is no link “${onShelf}” on the shelf` : `The blank “${name}” is left open`;
};

/** A blank that is left open, at the field that would fill it. @param where else it is to be settled */
function openBlank(name: string, where: FitPlace = 'template'): FitFinding {
  const source = (['summary', 'title', 'series', 'episode'] as const).find((each) => each === name);
  return { place: source ?? where, what: blankWords(name) };
}

class Fitting {
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

/**
 * The tags that a site takes of a list, in order, and why the others are left out.
 * @param site its name, for what is said
 */
export function fitTags(tags: readonly string[], rules: TagRules, site: string): { tags: string[]; leftOut: string[] } {
  const fitted: { tags: string[]; leftOut: string[] } = { tags: [], leftOut: [] };
  for (const tag of tags) {
    const why =
      rules.longest !== undefined && [...tag].length > rules.longest
        ? `longer than ${rules.longest} characters`
        : fitted.tags.length >= rules.most
          ? `${site} takes ${rules.most} tags`
          : undefined;
    if (why) fitted.leftOut.push(`tag ${tag}: ${why}`);
    else fitted.tags.push(tag);
  }
  return fitted;
}

/**
 * The title in its pattern with nothing left out, as it goes out where there is room for all of it.
 * @throws TemplateError where the pattern cannot be read
 */
export function wholeTitle(input: Pick<FitInput, 'title' | 'titlePattern' | 'names'>, site: SiteRules): string {
  const pattern = input.titlePattern?.trim() || PLAIN_TITLE;
  return filledTitle(pattern, input, site, 0);
}

/** A title's pattern filled in. @param gone parts up to this number are left out */
function filledTitle(pattern: string, input: Pick<FitInput, 'title' | 'names'>, site: SiteRules, gone: number): string {
  const parts = Object.fromEntries(partsThatMayGo(pattern).map((part) => [cutName(part), part > gone]));
  return renderTemplate(pattern, { ...namesView(input, site), ...parts })
    .replace(/\s+/g, ' ')
    .trim();
}

/** The title in its pattern, as much of it as fits: parts that may go, then the pattern, then words from the last. */
function fitTitle(input: FitInput, site: SiteRules): { title: string; leftOut: string[]; findings: FitFinding[] } {
  const none = { title: '', leftOut: [], findings: [] };
  if (!site.title) return none;
  const { title: typed } = input;
  const find = (what: string): FitFinding => ({ place: 'title', what });
  const byHand = input.byHand?.title?.trim();
  if (byHand) {
    const over = overLimit(byHand, site.title, site.name);
    return { title: byHand, leftOut: [], findings: over ? [find(`The title is ${over}`)] : [] };
  }
  if (typed.trim() === '') return { ...none, findings: [find('The title is empty')] };
  const pattern = input.titlePattern?.trim() || PLAIN_TITLE;
  const parts = partsThatMayGo(pattern);
  const view: TemplateView = {
    ...namesView(input, site),
    ...Object.fromEntries(parts.map((part) => [cutName(part), true])),
  };
  const findings = blanksIn(pattern, view, mayBeEmpty(input, site)).map(({ name }) => openBlank(name, 'title'));
  const filled = (gone: number) => filledTitle(pattern, input, site, gone);
  const whole = filled(0);
  const limit = site.title;
  const gone = [0, ...parts].find((part) => isWithin(filled(part), limit));
  if (gone !== undefined) {
    const title = filled(gone);
    return { title, leftOut: title === whole ? [] : [`parts of the title “${whole}”`], findings };
  }
  const [firstWord = ''] = typed.trim().split(/\s+/);
  if (!isWithin(`${firstWord}…`, limit)) {
    const over = overLimit(typed.trim(), limit, site.name);
    return {
      title: typed.trim(),
      leftOut: [],
      findings: [...findings, find(`The title is ${over}, and no word of it fits`)],
    };
  }
  const title = shortenTitle(typed.trim(), limit);
  const leftOut = [
    ...(whole === typed.trim() ? [] : [`the title’s pattern: “${whole}”`]),
    ...(title === typed.trim() ? [] : [`the end of the title: “${typed.trim()}”`]),
  ];
  return { title, leftOut, findings };
}

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

/** What a site has against a text that nothing more of may go. */
function textFindings(text: string, rules: NonNullable<SiteRules['text']>, site: SiteRules): FitFinding[] {
  const findings: FitFinding[] = [];
  const find = (what: string) => findings.push({ place: 'summary', what });
  const over = overLimit(text, rules, site.name);
  if (over) find(`The text is ${over}, and nothing more of it may go`);
  if (text === '' && !site.title) find('The text is empty');
  const links = linkFinding(text, rules, site.name);
  if (links) find(links);
  return findings;
}
