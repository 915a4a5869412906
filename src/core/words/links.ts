const LINK = /\b(?:https?:\/\/|www\.)[^\s<>"']+/gi;

/** The links in a text. */
export function linksIn(text: string): string[] {
  return text.match(LINK) ?? [];
}
