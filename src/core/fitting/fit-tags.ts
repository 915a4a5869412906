import type { TagRules } from '../words';

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
