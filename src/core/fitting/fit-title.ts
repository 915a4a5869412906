import { shortenTitle } from '../chapters';
import type { SiteRules } from '../delivery';
import {
  blanksIn,
  cutName,
  isWithin,
  overLimit,
  PLAIN_TITLE,
  partsThatMayGo,
  renderTemplate,
  type TemplateView,
} from '../words';
import { mayBeEmpty, namesView, openBlank } from './blanks';
import type { FitFinding, FitInput } from './shapes';

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
export function fitTitle(
  input: FitInput,
  site: SiteRules,
): { title: string; leftOut: string[]; findings: FitFinding[] } {
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
