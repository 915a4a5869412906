/** What a site takes as tags: how many, and how many code points each has at most. */
export interface TagRules {
  most: number;
  longest: number | undefined;
}

/** Tags from text with commas or line ends between them: trimmed, empty ones gone, repeats (in any case) dropped. */
export function tagsFromText(text: string): string[] {
  return uniqueTags(text.split(/[,\n]/));
}

/** The tags trimmed, without empty ones and without repeats in any case; the first spelling stays. */
export function uniqueTags(tags: readonly string[]): string[] {
  const seen = new Set<string>();
  const kept: string[] = [];
  for (const raw of tags) {
    const tag = raw.replace(/\s+/g, ' ').trim().replace(/^#+/, '');
    const key = tag.toLocaleLowerCase('en');
    if (tag === '' || seen.has(key)) continue;
    seen.add(key);
    kept.push(tag);
  }
  return kept;
}

/** A tag as a # word: its letters and digits run together; undefined where it has none. */
export function hashWord(tag: string): string | undefined {
  const word = tag.normalize('NFC').replace(/[^\p{L}\p{M}\p{N}_]/gu, '');
  return word === '' ? undefined : `#${word}`;
}

/**
 * What of the tags a site does not take, in words.
 * @param site its name, for what is said
 */
export function tagFindings(tags: readonly string[], rules: TagRules, site: string): string[] {
  const findings: string[] = [];
  if (tags.length > rules.most) findings.push(`${tags.length} tags; ${site} takes ${rules.most}`);
  for (const tag of tags) {
    if (rules.longest !== undefined && [...tag].length > rules.longest) {
      findings.push(`The tag “${tag}” is longer than ${rules.longest} characters`);
    }
  }
  return findings;
}
