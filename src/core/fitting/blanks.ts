import type { SiteRules } from '../delivery';
import type { TemplateView } from '../words';
import { shelfView } from './names';
import type { FitFinding, FitInput, FitPlace } from './shapes';

/** What a template sees of the input that no lack of room can change. */
export function namesView({ title, names = {} }: Pick<FitInput, 'title' | 'names'>, site: SiteRules): TemplateView {
  const { shelf = {}, ...rest } = names;
  const takesLinks = site.text?.links ?? false;
  return { ...rest, ...shelfView(shelf, takesLinks), title: title.trim(), 'takes-links': takesLinks };
}

/** Names that stand for nothing without being left open: the site's to lack, or links where it takes none. */
export function mayBeEmpty({ names }: FitInput, site: SiteRules): string[] {
  const links = site.text?.links ? [] : Object.keys(names?.shelf ?? {});
  return ['chapters', 'hashtags', ...links.flatMap((name) => [`shelf.${name}`, `address.${name}`])];
}

const blankWords = (name: string) => {
  const onShelf = /^(?:shelf|address)\.(.+)$/.exec(name)?.[1];
  return onShelf ? `There is no link “${onShelf}” on the shelf` : `The blank “${name}” is left open`;
};

/** A blank that is left open, at the field that would fill it. @param where else it is to be settled */
export function openBlank(name: string, where: FitPlace = 'template'): FitFinding {
  const source = (['summary', 'title', 'series', 'episode'] as const).find((each) => each === name);
  return { place: source ?? where, what: blankWords(name) };
}
