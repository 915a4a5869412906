const LINK = /\b(?:https?:\/\/|www\.)[^\s<>"']+/gi;

/** The links in a text. */
export function linksIn(text: string): string[] {
  return text.match(LINK) ?? [];
}

/** How many links a site takes in a text: none, so many, or as many as one likes. */
export interface LinkRules {
  links: boolean;
  mostLinks?: number;
}

/**
 * What of the links in a text a site does not take, in words; undefined where all is well.
 * @param site its name, for what is said
 */
export function linkFinding(text: string, rules: LinkRules, site: string): string | undefined {
  const links = linksIn(text);
  if (!rules.links) return links[0] && `${site} takes no links in the text: ${links[0]}`;
  if (rules.mostLinks === undefined || links.length <= rules.mostLinks) return undefined;
  return `The text has ${links.length} links; ${site} takes ${rules.mostLinks}`;
}

/** A link with the words that stand before it. */
export interface NamedLink {
  label: string;
  url: string;
}

/** A link of a video: its own, or one of the shelf by its name. */
export type LinkItem = NamedLink | { shelf: string };

/** The link shelf: links by the name that texts use them by. */
export type Shelf = Readonly<Record<string, NamedLink>>;

/** What a name on the shelf looks like: it has to stand in a template as it is. */
export const SHELF_NAME = /^[a-z0-9]+(?:-[a-z0-9]+)*$/;

/** A link as a line of a text. */
export function linkLine({ label, url }: NamedLink): string {
  return label.trim() === '' ? url : `${label.trim()}: ${url}`;
}

/** The links with their words and addresses; `missing` are names that the shelf does not have. */
export function linksOf(items: readonly LinkItem[], shelf: Shelf): { links: NamedLink[]; missing: string[] } {
  const found: { links: NamedLink[]; missing: string[] } = { links: [], missing: [] };
  for (const item of items) {
    if (!('shelf' in item)) found.links.push(item);
    else if (Object.hasOwn(shelf, item.shelf)) found.links.push(shelf[item.shelf] as NamedLink);
    else found.missing.push(item.shelf);
  }
  return found;
}
